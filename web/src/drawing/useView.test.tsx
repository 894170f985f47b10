import { fireEvent, render, screen } from "@testing-library/react";
import { useRef } from "react";
import { describe, expect, it, vi } from "vitest";
import { seen, useView } from "./useView";

const SIZE = { width: 400, height: 200 };
const fit = { x: (mm: number) => mm * 2, y: (mm: number) => 200 - mm * 2, scale: 2 };

function Probe() {
  const drawing = useRef<HTMLButtonElement>(null);
  const { view, onKeyDown, closer, wider, fit: toFit } = useView(drawing, SIZE);
  return (
    <>
      <button type="button" aria-label="drawing" ref={drawing} onKeyDown={onKeyDown}>
        {`${view.k.toFixed(2)} ${view.x.toFixed(0)} ${view.y.toFixed(0)}`}
      </button>
      <button type="button" onClick={closer}>
        closer
      </button>
      <button type="button" onClick={wider}>
        wider
      </button>
      <button type="button" onClick={toFit}>
        fit
      </button>
    </>
  );
}

async function probe() {
  render(<Probe />);
  await vi.dynamicImportSettled();
  return screen.getByLabelText("drawing");
}

describe("looking at a drawing", () => {
  it("shows what stands where, as close as it is looked at", () => {
    const at = seen(fit, { k: 2, x: -100, y: -50 });
    expect([at.x(100), at.y(50), at.scale]).toEqual([300, 150, 4]);
  });

  it("comes closer about the middle by keys, moves, and never beyond the edge", async () => {
    const drawing = await probe();
    fireEvent.keyDown(drawing, { key: "+" });
    expect(drawing).toHaveTextContent("1.25 -50 -25");
    fireEvent.keyDown(drawing, { key: "ArrowLeft" });
    expect(drawing).toHaveTextContent("1.25 -10 -25");
    for (let i = 0; i < 5; i++) fireEvent.keyDown(drawing, { key: "ArrowLeft" });
    expect(drawing).toHaveTextContent("1.25 0 -25");
    fireEvent.keyDown(drawing, { key: "-" });
    expect(drawing).toHaveTextContent("1.00 0 0"); // and never wider than fitted
    fireEvent.keyDown(drawing, { key: "-" });
    expect(drawing).toHaveTextContent("1.00 0 0");
    fireEvent.keyDown(drawing, { key: "+" });
    fireEvent.keyDown(drawing, { key: "0" });
    expect(drawing).toHaveTextContent("1.00 0 0");
    expect(fireEvent.keyDown(drawing, { key: "u" })).toBe(true); // other keys go on to the page
  });

  it("is no closer than is of use, and comes closer with the wheel", async () => {
    const drawing = await probe();
    for (let i = 0; i < 20; i++) fireEvent.click(screen.getByText("closer"));
    expect(drawing).toHaveTextContent(/^12\.00/);
    fireEvent.click(screen.getByText("fit"));
    expect(fireEvent.wheel(drawing, { deltaY: -200 })).toBe(false); // the page stays where it is
    expect(drawing).not.toHaveTextContent(/^1\.00/);
  });
});
