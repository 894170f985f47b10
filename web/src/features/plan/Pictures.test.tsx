import { render, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import type { Picture } from "../../api/client";
import { FeedBars, InsertDrawing } from "./Pictures";

function picture(more: Partial<Picture>): Picture {
  return {
    kind: "bars",
    name: "p",
    title: "Feed window",
    group: "Turn",
    words: "All allow 0.2 to 0.3.",
    unit: "mm/rev",
    ranges: [],
    at: null,
    at_text: "",
    lines: [],
    mark: null,
    mark_text: "",
    outline: [],
    hole: 0,
    letters: [],
    lanes: [],
    cycle: 0,
    ...more,
  };
}

const lane = (label: string) => screen.getByText(label).parentElement as HTMLElement;
const bar = (label: string) => lane(label).querySelector("i") as HTMLElement;

describe("FeedBars", () => {
  it("lays every school on one scale, with what they share and the plan's feed", () => {
    const ranges = [
      { label: "corner radius", low: 0.2, high: 0.4, text: "0.2 to 0.4" },
      { label: "finish", low: null, high: 0.3, text: "up to 0.3" },
      { label: "shared", low: 0.2, high: 0.3, text: "0.2 to 0.3" },
    ];
    render(<FeedBars picture={picture({ ranges, at: 0.25, at_text: "0.25" })} />);
    // The scale ends a little past the largest end: 1.12 × 0.4.
    expect(Number.parseFloat(bar("corner radius").style.left)).toBeCloseTo((100 * 0.2) / 0.448, 1);
    expect(Number.parseFloat(bar("finish").style.left)).toBe(0);
    expect(bar("shared").style.left).toBe(bar("corner radius").style.left);
    expect(bar("shared").style.right).toBe(bar("finish").style.right);
    expect(screen.getByText(/The plan feeds 0.25/)).toBeInTheDocument();
  });

  it("marks schools that clash", () => {
    const ranges = [{ label: "shared", low: 0.3, high: 0.2, text: "0.3 to 0.2" }];
    render(<FeedBars picture={picture({ ranges, words: "They clash." })} />);
    expect(bar("shared").parentElement).toHaveAttribute("data-clash", "true");
  });
});

describe("InsertDrawing", () => {
  it("draws the outline with every letter explained", () => {
    const drawn = picture({
      kind: "outline",
      title: "SNMG 120408",
      words: "SNMG 120408: square, corner 0.8 mm, 8 edges.",
      outline: [
        [6, 6],
        [-6, 6],
        [-6, -6],
        [6, -6],
      ],
      hole: 5,
      letters: [
        { symbol: "S", name: "Shape", meaning: "square, 90°" },
        { symbol: "N", name: "Clearance", meaning: "0° under the edge" },
      ],
    });
    render(<InsertDrawing picture={drawn} />);
    expect(screen.getByRole("img", { name: /8 edges/ })).toBeInTheDocument();
    expect(document.querySelector("polygon")?.getAttribute("points")).toBe("6,-6 -6,-6 -6,6 6,6");
    expect(document.querySelector("circle")?.getAttribute("r")).toBe("2.5");
    expect(screen.getByText("square, 90°")).toBeInTheDocument();
  });
});
