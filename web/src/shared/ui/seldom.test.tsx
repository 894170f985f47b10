import { render, screen } from "@testing-library/react";
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

  it("is loaded again where it did not come", async () => {
    vi.spyOn(console, "error").mockImplementation(() => undefined);
    const load = vi
      .fn<() => Promise<typeof Part>>()
      .mockRejectedValueOnce(new Error("gone"))
      .mockResolvedValue(Part);
    const Seldom = seldom(load, null);
    const first = new Promise((done) => window.addEventListener("error", done, { once: true }));
    expect(() => render(<Seldom word="x" />)).not.toThrow();
    await Promise.race([first, new Promise((done) => setTimeout(done, 50))]);
    render(<Seldom word="there" />);
    expect(await screen.findByText("there")).toBeInTheDocument();
  });
});
