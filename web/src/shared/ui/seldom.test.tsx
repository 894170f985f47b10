import { act, render, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { seldom } from "./seldom";

const Part = ({ word }: { word: string }) => <p>{word}</p>;

describe("seldom", () => {
  it("loads a part where it is first drawn, once, and hands on what it is given", async () => {
    const load = vi.fn(() => Promise.resolve(Part));
    const Seldom = seldom(load, <p>Opening …</p>);
    expect(load).not.toHaveBeenCalled();
    const { unmount } = render(<Seldom word="here" />);
    expect(screen.getByText("Opening …")).toBeInTheDocument();
    expect(await screen.findByText("here")).toBeInTheDocument();
    unmount();
    render(<Seldom word="again" />);
    expect(screen.getByText("again")).toBeInTheDocument(); // at once: it is there
    expect(load).toHaveBeenCalledTimes(1);
  });

  it("says in its own place that it did not come, and is asked for again by itself", async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    const load = vi
      .fn<() => Promise<typeof Part>>()
      .mockRejectedValueOnce(new Error("gone"))
      .mockRejectedValueOnce(new Error("still gone"))
      .mockResolvedValue(Part);
    const Seldom = seldom(load, null);
    render(
      <>
        <p>what stands beside it</p>
        <Seldom word="there" />
      </>,
    );
    expect(await screen.findByRole("status")).toHaveTextContent("the server does not answer");
    expect(screen.getByText("what stands beside it")).toBeInTheDocument();
    await act(() => vi.advanceTimersByTimeAsync(2_000));
    await act(() => vi.advanceTimersByTimeAsync(2_000));
    expect(screen.getByText("there")).toBeInTheDocument();
    expect(screen.queryByRole("status")).toBeNull();
    expect(load).toHaveBeenCalledTimes(3);
    vi.useRealTimers();
  });
});
