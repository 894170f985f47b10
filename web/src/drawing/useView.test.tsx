import { fireEvent, render, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { FIT, moved, seen, useView, zoomed } from "./useView";

const SIZE = { width: 400, height: 200 };
const fit = { x: (mm: number) => mm * 2, y: (mm: number) => 200 - mm * 2, scale: 2 };

describe("the view of a drawing", () => {
  it("keeps the point under the pointer where it is while it comes closer", () => {
    const at = { x: 60, y: -20 };
    const view = zoomed(FIT, 2, at, SIZE);
    // What stood at the pointer: the middle of the picture and 60 to the right of it.
    const mm = (200 + 60) / 2;
    expect(fit.x(mm)).toBe(260);
    expect(seen(fit, view, SIZE).x(mm)).toBeCloseTo(260);
    expect(seen(fit, view, SIZE).scale).toBe(4);
  });

  it("is never wider than fitted, nor closer than is of use", () => {
    expect(zoomed(FIT, 0.1, { x: 50, y: 50 }, SIZE)).toEqual({ zoom: 1, dx: 0, dy: 0 });
    expect(zoomed(FIT, 1000, { x: 0, y: 0 }, SIZE).zoom).toBe(12);
  });

  it("never loses the drawing beyond the edge", () => {
    expect(moved(FIT, 500, 500, SIZE)).toEqual({ zoom: 1, dx: 0, dy: 0 });
    const close = zoomed(FIT, 2, { x: 0, y: 0 }, SIZE);
    expect(moved(close, 5000, -5000, SIZE)).toEqual({ zoom: 2, dx: 200, dy: -100 });
  });

  it("comes back to the fit when it is let out again", () => {
    const there = zoomed(FIT, 3, { x: 150, y: 70 }, SIZE);
    expect(zoomed(there, 1 / 3, { x: -100, y: 0 }, SIZE)).toEqual({ zoom: 1, dx: 0, dy: 0 });
  });
});

function Probe() {
  const { view, handlers, closer, fit: toFit } = useView(SIZE);
  return (
    <>
      <button type="button" aria-label="drawing" {...handlers}>
        {`${view.zoom.toFixed(2)} ${view.dx.toFixed(0)} ${view.dy.toFixed(0)}`}
      </button>
      <button type="button" onClick={closer}>
        closer
      </button>
      <button type="button" onClick={toFit}>
        fit
      </button>
    </>
  );
}

function probe() {
  render(<Probe />);
  const drawing = screen.getByLabelText("drawing");
  drawing.setPointerCapture = () => {};
  const finger = (id: number, x: number, y: number, how: "pointerDown" | "pointerMove" | "pointerUp") =>
    fireEvent[how](drawing, { pointerId: id, clientX: x, clientY: y, pointerType: "touch" });
  return { drawing, finger };
}

describe("looking at a drawing", () => {
  it("is moved and zoomed by keys", () => {
    const { drawing } = probe();
    fireEvent.keyDown(drawing, { key: "+" });
    fireEvent.keyDown(drawing, { key: "ArrowLeft" });
    expect(drawing).toHaveTextContent("1.25 40 0");
    fireEvent.keyDown(drawing, { key: "-" });
    expect(drawing).toHaveTextContent("1.00 0 0");
    fireEvent.keyDown(drawing, { key: "+" });
    fireEvent.keyDown(drawing, { key: "0" });
    expect(drawing).toHaveTextContent("1.00 0 0");
    expect(fireEvent.keyDown(drawing, { key: "u" })).toBe(true); // other keys go on to the page
  });

  it("comes closer with the wheel, and by two fingers drawn apart", () => {
    const { drawing, finger } = probe();
    fireEvent.wheel(drawing, { deltaY: -200 });
    expect(drawing).toHaveTextContent("1.35");
    fireEvent.click(screen.getByText("fit"));
    finger(1, -50, 0, "pointerDown");
    finger(2, 50, 0, "pointerDown");
    finger(2, 150, 0, "pointerMove");
    expect(drawing).toHaveTextContent("2.00");
    finger(2, 150, 0, "pointerUp");
    finger(1, -90, 0, "pointerMove"); // one finger left: it moves
    expect(drawing).toHaveTextContent(/^2\.00 -/);
  });

  it("is dragged once it is closer", () => {
    const { drawing, finger } = probe();
    fireEvent.click(screen.getByText("closer"));
    finger(1, 0, 0, "pointerDown");
    finger(1, 30, -10, "pointerMove");
    finger(1, 30, -10, "pointerUp");
    finger(1, 90, 90, "pointerMove"); // lifted: nothing moves any more
    expect(drawing).toHaveTextContent("1.25 30 -10");
  });
});
