import type { Chart } from "../../api/client";
import type { AxesProps } from "../../drawing/Axes";
import { type Box, place } from "../../drawing/place";
import { axesTaken } from "../../drawing/texts";
import { textHeight, textWidth } from "../../drawing/textWidth";

type Curve = Chart["curves"][number];
/** What a name speaks of: a line leads there where it had to stand away. */
type Point = { x: number; y: number };
type Wanted = { key: string; text: string; kind: string; spots: Box[]; reach?: number; point?: Point };
export type ForceText = { key: string; text: string; kind: string; box: Box; point: Point | undefined };

const BESIDE = 10; // px from a point: its handle stands there
const NEAR = 40; // farther from its point a cut's name would be taken for another's

type Place = { axes: AxesProps; height: number; others: readonly Curve[] };

/** All words of the force picture, each where it stands on nothing else; what finds no room is said in the words. */
export function forceTexts(chart: Chart, { axes, height, others }: Place): ForceText[] {
  const { x, y, edge, width } = axes;
  const high = textHeight();
  const [left, right] = [edge.left + 6, width - edge.right - 6];
  const last = (points: readonly (readonly number[])[]) => points[points.length - 1]?.[1] ?? 0;
  const box = (text: string, at: number, top: number): Box => ({
    x: at,
    y: top,
    width: textWidth(text, "narrow"),
    height: high,
  });
  const endingAt = (text: string, at: number, top: number) => box(text, at - textWidth(text, "narrow"), top);
  /** Along a level line: at its end over it or under it, else where it begins. */
  const onLine = (text: string, value: number, kind: string, first: "over" | "under" = "over"): Wanted => {
    const tops = [y(value) - high - 2, y(value) + 2];
    if (first === "under") tops.reverse();
    const spots = tops.flatMap((top) => [endingAt(text, right, top), box(text, left + BESIDE, top)]);
    return { key: text, text, kind, spots };
  };
  const name = (p: Chart["points"][number]): Wanted => {
    const tops = [0, -1, 1, -2, 2].map((k) => y(p.force) - high / 2 + k * (high + 3));
    const spots = tops.flatMap((top) => [
      box(p.name, x(p.rpm) + BESIDE, top),
      endingAt(p.name, x(p.rpm) - BESIDE, top),
    ]);
    return {
      key: `cut ${p.name}`,
      text: p.name,
      kind: p.over ? "over" : p.nearest ? "strong" : "",
      spots,
      reach: NEAR,
      point: { x: x(p.rpm), y: y(p.force) },
    };
  };
  const first = chart.points
    .filter((p) => p.over || p.nearest)
    .sort((a, b) => Number(b.over) - Number(a.over));
  const cap = `cap ${chart.cap_text}`;
  const wall = `the wall stands ${chart.wall_text}`;
  const wanted: Wanted[] = [
    {
      key: "cap",
      text: cap,
      kind: "cap",
      spots: [box(cap, x(chart.cap) + 7, edge.top - high), endingAt(cap, x(chart.cap) - 7, edge.top - high)],
    },
    ...first.map(name),
    onLine(`worst cut needs ${chart.demand_text}`, last(chart.demand), "strong"),
    ...(chart.wall === null
      ? []
      : chart.wall > chart.force_most
        ? [onLine(`${wall}, above what is drawn`, chart.force_most, "")]
        : [onLine(wall, chart.wall, "")]),
    ...(chart.allowable <= chart.force_most
      ? [onLine(`chuck allows ${chart.allowable_text} at this height`, chart.allowable, "")]
      : []),
    ...others.map((c): Wanted => {
      const [px = 0, py = 0] = c.points[Math.floor(c.points.length * 0.86)] ?? [];
      const spots = [y(py) - high - 4, y(py) + 4].flatMap((top) => [
        box(c.label, x(px) + 8, top),
        endingAt(c.label, x(px) - 8, top),
      ]);
      return { key: `curve ${c.label}`, text: c.label, kind: "", spots };
    }),
    onLine("needed at the worst corner", last(chart.demand_corner), "", "under"),
    ...chart.points.filter((p) => !first.includes(p)).map(name),
  ];
  const handle = (px: number, py: number): Box => ({ x: px - 9, y: py - 9, width: 18, height: 18 });
  const taken = [
    ...axesTaken(axes),
    ...chart.points.map((p) => handle(x(p.rpm), y(p.force))),
    handle(x(0), y(chart.curves[0]?.points[0]?.[1] ?? 0)),
    handle(x(chart.cap), y(chart.cap_force)),
  ];
  const boxes = place(wanted, { width, height }, taken);
  return wanted.flatMap(({ key, text, kind, point }, i) => {
    const found = boxes[i];
    return found ? [{ key, text, kind, box: found, point }] : [];
  });
}
