import { describe, expect, it } from "vitest";
import type { Dimension, Shape } from "../api/client";
import { boxAround, fitBox } from "./project";

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

  it("keeps the scale the same both ways, centred, y upward", () => {
    const at = fitBox([0, 0, 100, 50], { width: 420, height: 300 }, { x: 10, y: 10 });
    expect(at.scale).toBe(4);
    expect(at.x(0)).toBe(10);
    expect(at.x(100)).toBe(410);
    expect(at.y(0) - at.y(50)).toBe(200);
    expect(at.y(25)).toBe(150);
  });
});
