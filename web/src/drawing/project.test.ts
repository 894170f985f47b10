import { describe, expect, it } from "vitest";
import type { Dimension, Shape } from "../api/client";
import { boxAround, fitBox, nearHalf } from "./project";

const shape = {
  points: [
    [0, 0],
    [100, 40],
  ],
} as unknown as Shape;
const dimension = { start: [100, -20], end: [100, 20], offset: 30 } as unknown as Dimension;

describe("projection", () => {
  it("finds the box around shapes and shifted dimensions", () => {
    expect(boxAround([shape], [dimension])).toEqual([0, -20, 130, 40]);
    expect(boxAround([], [])).toEqual([0, 0, 1, 1]);
  });

  it("looks first at the half above the axis, and below it as far as the picture has room", () => {
    const margin = { x: 0, y: 0 };
    const near = (width: number, low = 0) => nearHalf([0, -50, 100, 50], low, { width, height: 100 }, margin);
    // A strip: only the near half and a little below the axis. A square: all of it. Between: what the width leaves.
    expect(near(400)).toEqual([0, -6, 100, 50]);
    expect(near(100)).toEqual([0, -50, 100, 50]);
    expect(near(125)).toEqual([0, -30, 100, 50]);
    // What stands below without a mirror above is always in it.
    expect(near(400, -20)).toEqual([0, -20, 100, 50]);
  });

  it("keeps the scale the same both ways, centred, y upward", () => {
    const at = fitBox([0, 0, 100, 50], { width: 420, height: 300 }, { x: 10, y: 10 });
    expect(at.scale).toBe(4);
    expect(at.x(0)).toBe(10);
    expect(at.x(100)).toBe(410);
    expect(at.y(0) - at.y(50)).toBe(200);
    expect(at.y(25)).toBe(150);
  });
});
