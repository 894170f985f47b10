import type { Dimension, Scene } from "../api/client";
import { thousands } from "../shared/words";
import { type AxesProps, BASE_PAD, LEFT_PAD, ticksAcross, UPRIGHT } from "./Axes";
import { type Box, place } from "./place";
import type { Projection } from "./project";
import { textHeight, textWidth } from "./textWidth";
import type { Size } from "./useSize";

type Label = Scene["labels"][number];
type Point = { x: number; y: number };

/** A dimension's line as it is drawn: from its feet at the part to its two ends. */
export type Line = { from: Point; to: Point; a: Point; b: Point; upright: boolean };

export const HEAD = 8;
const BESIDE = 4;
/** Where along an upright line its figure may stand: first of all not on the axis. */
const ALONG = [0.28, 0.5, 0.72, 0.14, 0.86];

/** The line of a dimension on the screen. */
export function lineOf(dimension: Dimension, at: Projection): Line {
  const [ax = 0, ay = 0] = dimension.start;
  const [bx = 0, by = 0] = dimension.end;
  const upright = ax === bx;
  const from = { x: at.x(ax), y: at.y(ay) };
  const to = { x: at.x(bx), y: at.y(by) };
  const shift = dimension.offset * at.scale;
  const moved = (p: Point) => (upright ? { x: p.x + shift, y: p.y } : { x: p.x, y: p.y - shift });
  return { from, to, a: moved(from), b: moved(to), upright };
}

/** What a dimension's line takes of a picture. */
function boxOf(dimension: Dimension, at: Projection): Box {
  const { a, b } = lineOf(dimension, at);
  return {
    x: Math.min(a.x, b.x),
    y: Math.min(a.y, b.y),
    width: Math.abs(a.x - b.x),
    height: Math.abs(a.y - b.y),
  };
}

/** Where a dimension's figure may stand, the best first. */
export function figureSpots(dimension: Dimension, at: Projection, size: Size): Box[] {
  const { a, b, upright } = lineOf(dimension, at);
  const [wide, high] = [textWidth(dimension.text, "plain"), textHeight()];
  if (upright) {
    // Written along what is seen of its line, read from the right.
    const seen = (y: number) => Math.min(size.height, Math.max(0, y));
    const middles = ALONG.map((k) => seen(a.y) + (seen(b.y) - seen(a.y)) * k - wide / 2);
    const stands = (x: number) => middles.map((y) => ({ x, y, width: high, height: wide }));
    return [...stands(a.x - high - 1), ...stands(a.x + 1)];
  }
  const [left, right] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
  const stands = (x: number, y: number) => ({ x, y, width: wide, height: high });
  const middle = (left + right - wide) / 2;
  const over = stands(middle, a.y - high - 1);
  const under = stands(middle, a.y + 1);
  const before = stands(left - wide - BESIDE, a.y - high / 2);
  const after = stands(right + BESIDE, a.y - high / 2);
  const outside = dimension.outside === "before" ? [before, after] : [after, before];
  // Where the arrows leave no room for the figure it stands outside them.
  return right - left < wide + 2 * HEAD ? [...outside, over, under] : [over, under, ...outside];
}

/** Where a label may stand, the best first: at its point on the side it asks for, then on the others. */
export function labelSpots(label: Label, at: Projection): Box[] {
  const [x, y] = [at.x(label.point[0] ?? 0), at.y(label.point[1] ?? 0)];
  const [wide, high] = [textWidth(label.text, "narrow"), textHeight()];
  const starts = { start: x, middle: x - wide / 2, end: x - wide };
  const first = label.anchor as keyof typeof starts;
  const lefts = [starts[first], ...Object.values(starts).filter((left) => left !== starts[first])];
  const tops = [y - 0.76 * high, y - 1.9 * high, y + 0.4 * high];
  return tops.flatMap((top) => lefts.map((left) => ({ x: left, y: top, width: wide, height: high })));
}

/** Places for all figures and labels of a picture, none on another. What was lit comes last: it moves nothing. */
export function placeTexts(
  {
    usual,
    labels,
    pointed,
  }: { usual: readonly Dimension[]; labels: readonly Label[]; pointed: readonly Dimension[] },
  at: Projection,
  size: Size,
  taken: readonly Box[],
): { figures: Map<string, Box | null>; labels: (Box | null)[] } {
  const others = (d: Dimension) => usual.filter((other) => other !== d).map((other) => boxOf(other, at));
  const figure = (d: Dimension) => ({ spots: figureSpots(d, at, size), lines: others(d) });
  const spots = [
    ...usual.map(figure),
    ...labels.map((l) => ({ spots: labelSpots(l, at) })),
    ...pointed.map(figure),
  ];
  const boxes = place(spots, size, taken);
  const named = [...usual, ...labels.map(() => null), ...pointed];
  const figures = new Map(named.flatMap((d, i) => (d ? [[d.name, boxes[i] ?? null] as const] : [])));
  return { figures, labels: boxes.slice(usual.length, usual.length + labels.length) };
}

/** Where a word of a chart may stand: beside its point, the right before the left, then under and over it. */
export function besideSpots(text: string, { x, y }: Point): Box[] {
  const [wide, high] = [textWidth(text, "narrow"), textHeight()];
  const tops = [y - high / 2, y + BESIDE, y - BESIDE - high];
  return tops.flatMap((top) =>
    [x + 2 * BESIDE, x - 2 * BESIDE - wide].map((left) => ({ x: left, y: top, width: wide, height: high })),
  );
}

/** Where the figures and words of a chart's axes stand: nothing else may. */
export function axesTaken({ x, y, edge, width, big, unit, words }: AxesProps): Box[] {
  const base = y.range()[0] ?? 0;
  const high = textHeight();
  const ended = (text: string, right: number, baseline: number) => {
    const wide = textWidth(text, "narrow");
    return { x: right - wide, y: baseline - 0.76 * high, width: wide, height: high };
  };
  return [
    ...y.ticks(UPRIGHT).map((t) => ended(thousands(t), edge.left - LEFT_PAD, y(t) + 0.26 * high)),
    ...x.ticks(ticksAcross(width, big)).map((t) => {
      const text = thousands(t);
      return ended(text, x(t) + textWidth(text, "narrow") / 2, base + BASE_PAD * big + 0.76 * high);
    }),
    ended(unit, edge.left - LEFT_PAD, edge.top - 14),
    ended(words, width - edge.right, base + 35 * big),
  ];
}
