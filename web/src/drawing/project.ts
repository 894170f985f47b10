import type { Dimension, Shape } from "../api/client";
import type { Size } from "./useSize";

export type Box = [number, number, number, number];

/** The least box in mm around shapes, dimension lines and what labels point at. */
export function boxAround(
  shapes: readonly Shape[],
  dimensions: readonly Dimension[],
  labels: readonly { point: readonly number[] }[] = [],
): Box {
  const xs: number[] = [];
  const ys: number[] = [];
  for (const [x = 0, y = 0] of [...shapes.flatMap((s) => s.points), ...labels.map((l) => l.point)]) {
    xs.push(x);
    ys.push(y);
  }
  for (const { start, end, offset } of dimensions) {
    const upright = start[0] === end[0];
    for (const [x = 0, y = 0] of [start, end]) {
      xs.push(upright ? x + offset : x);
      ys.push(upright ? y : y + offset);
    }
  }
  return xs.length > 0 ? [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] : [0, 0, 1, 1];
}

export type Projection = { x: (mm: number) => number; y: (mm: number) => number; scale: number };

const BELOW = 0.12;

/**
 * What of a section is looked at first: all of it along the axis; across, as much as fills the picture, the half above
 * the axis at least, since the half below only mirrors it. `low` is the lowest that must be in view [mm].
 */
export function nearHalf(
  [x0, y0, x1, y1]: Box,
  low: number,
  size: Size,
  margin: { x: number; y: number },
): Box {
  const across =
    (Math.max(1, x1 - x0) * (size.height - 2 * margin.y)) / Math.max(1, size.width - 2 * margin.x);
  return [x0, Math.max(y0, Math.min(-BELOW * y1, low, y1 - across)), x1, y1];
}

/** Fits a box in mm into a size in px, to scale, centred, y upward. */
export function fitBox(box: Box, size: Size, margin: { x: number; y: number }): Projection {
  const [x0, y0, x1, y1] = box;
  const free = {
    width: Math.max(1, size.width - 2 * margin.x),
    height: Math.max(1, size.height - 2 * margin.y),
  };
  const scale = Math.min(free.width / Math.max(1, x1 - x0), free.height / Math.max(1, y1 - y0));
  const left = (size.width - scale * (x1 - x0)) / 2;
  const top = (size.height - scale * (y1 - y0)) / 2;
  return { x: (mm) => left + (mm - x0) * scale, y: (mm) => top + (y1 - mm) * scale, scale };
}
