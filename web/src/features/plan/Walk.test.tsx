import { act, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { SWEEP_MS } from "../../drawing/Section";
import { useWalk, Walk } from "./Walk";

const CUTS = [
  { key: "c1", title: "Face" },
  { key: "c2", title: "Rough" },
  { key: "c3", title: "Finish" },
];

function Side({ first }: { first: string }) {
  const [group, setGroup] = useState(first);
  return <Walk {...useWalk(CUTS, group, setGroup)} />;
}

const at = (text: string) => expect(screen.getByRole("group")).toHaveTextContent(text);

afterEach(() => vi.useRealTimers());

describe("Walk", () => {
  it("goes to the cut after and before, and not beyond the ends", async () => {
    const user = userEvent.setup();
    render(<Side first="c1" />);
    at("Face1 of 3");
    expect(screen.getByRole("button", { name: "The cut before" })).toBeDisabled();
    await user.click(screen.getByRole("button", { name: "The cut after" }));
    await user.click(screen.getByRole("button", { name: "The cut after" }));
    at("Finish3 of 3");
    expect(screen.getByRole("button", { name: "The cut after" })).toBeDisabled();
    await user.click(screen.getByRole("button", { name: "The cut before" }));
    at("Rough2 of 3");
  });

  it("plays the side from the cut in view to its last, and from the first where that was the last", async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    const user = userEvent.setup({ advanceTimers: vi.advanceTimersByTime });
    render(<Side first="c2" />);
    await user.click(screen.getByRole("button", { name: "play the side" }));
    at("Rough");
    act(() => void vi.advanceTimersByTime(SWEEP_MS));
    at("Finish");
    act(() => void vi.advanceTimersByTime(SWEEP_MS));
    expect(screen.getByRole("button", { name: "play the side" })).toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: "play the side" }));
    at("Face");
    await user.click(screen.getByRole("button", { name: "stop" }));
    act(() => void vi.advanceTimersByTime(2 * SWEEP_MS));
    at("Face");
  });
});
