import type { Dimension, Scene, Shape } from "../api/client";
import type { Box } from "./place";
import { boxAround, fitBox, nearHalf, type Projection } from "./project";
import { type Size, textScale } from "./useSize";

const MARGIN = { x: 64, y: 26 };
const BUTTONS = { width: 118, height: 40 };
const LETTER = 6.6;

/** What the buttons take of a picture's corner. */
export function buttonsTaken(size: Size): Box {
  return { x: size.width - BUTTONS.width, y: size.height - BUTTONS.height, ...BUTTONS };
}

export type Laid = {
  shapes: Shape[];
  /** Dimensions that are always there, and those of the fact that is pointed at. */
  usual: Dimension[];
  pointed: Dimension[];
  labels: Scene["labels"];
  fitted: Projection;
  /** Where the drawing ends below, which may be beyond the picture's edge [px]. */
  bottom: number;
};

const belongs = (item: { stops: string[] }, stop: string) =>
  item.stops.length === 0 || item.stops.includes(stop);

const isUpright = (d: Dimension) => d.start[0] === d.end[0];

/** What of a scene is drawn at a stop, for the facts in view, and the projection that fits all that may be. */
export function layout(
  scene: Scene,
  { stop, group, lit }: { stop: string; group?: string | undefined; lit: string | null },
  size: Size,
): Laid {
  const inView = (item: { group?: string }) => !item.group || item.group === group;
  const all = scene.shapes.filter((s) => belongs(s, stop));
  const measured = scene.dimensions.filter((d) => belongs(d, stop));
  const told = scene.labels.filter((x) => belongs(x, stop));
  const labels = told.filter(inView);
  // Long words stand to the right of what is drawn: room is left for them.
  const longest = Math.max(0, ...labels.map((x) => (x.anchor === "start" ? x.text.length : 0)));
  const words = longest > 12 ? Math.min(longest * LETTER * textScale(), size.width * 0.45) : 0;
  const room = { ...size, width: size.width - words };
  const whole = boxAround(all, measured, told);
  // Lengths and words below the axis have no mirror above it.
  const lowest = boxAround(
    [],
    measured.filter((d) => !isUpright(d)),
    told,
  )[1];
  const isSection = all.some((s) => s.role === "axis");
  const near = isSection ? nearHalf(whole, lowest, room, MARGIN) : whole;
  // Pointing at a number never moves the drawing, nor does another cut: what may be shown here is fitted.
  const fitted = fitBox(near, room, MARGIN);
  return {
    shapes: all.filter(inView),
    usual: measured.filter(inView),
    pointed: scene.dimensions.filter((d) => d.fact === lit && !measured.includes(d) && inView(d)),
    labels,
    fitted,
    bottom: Math.max(size.height, fitted.y(whole[1]) + MARGIN.y),
  };
}
