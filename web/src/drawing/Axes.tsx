import { type Axis, axisBottom, axisLeft } from "d3-axis";
import type { ScaleLinear } from "d3-scale";
import { select } from "d3-selection";
import { useLayoutEffect, useRef } from "react";

export type Edge = { top: number; right: number; bottom: number; left: number };
export type Scale = ScaleLinear<number, number>;

/** The room around a chart for its figures, at the size that the person reads. */
export function edgesOf(room: Edge, big: number): Edge {
  return { top: room.top * big, right: room.right * big, bottom: room.bottom * big, left: room.left * big };
}

/** About how many figures stand beside the upright axis, and under the other. */
export const UPRIGHT = 6;
export const ticksAcross = (width: number, big: number) => (width < 500 * big ? 4 : 8);

export type AxesProps = {
  x: Scale;
  y: Scale;
  edge: Edge;
  width: number;
  big: number;
  unit: string;
  words: string;
};

/** The figures of a scale, all with as many places as the finest of them needs. */
export function said(scale: Scale, ticks: number): (tick: number) => string {
  const format = scale.tickFormat(ticks);
  return (tick) => format(tick).replace(/,/g, "\u202f");
}

/** px between an axis and its figures. */
export const LEFT_PAD = 8;
export const BASE_PAD = 6;

function Ticks({ axis, transform }: { axis: Axis<number>; transform: string }) {
  const group = useRef<SVGGElement>(null);
  useLayoutEffect(() => {
    if (group.current) select(group.current).call(axis);
  });
  return <g ref={group} className="ticks" transform={transform} />;
}

/** The scale along the foot of a chart, its lines up to `top`. */
export function Across({
  x,
  base,
  top,
  ...of
}: {
  x: Scale;
  base: number;
  top: number;
  width: number;
  big: number;
}) {
  const ticks = ticksAcross(of.width, of.big);
  const axis = axisBottom<number>(x)
    .ticks(ticks)
    .tickFormat(said(x, ticks))
    .tickSizeInner(-(base - top))
    .tickPadding(BASE_PAD * of.big);
  return <Ticks axis={axis.tickSizeOuter(0)} transform={`translate(0,${base})`} />;
}

/** The grid of a chart with its figures: `unit` over the upright axis, `words` under the other. */
export function Axes({ x, y, edge, width, big, unit, words }: AxesProps) {
  const [base = 0, top = 0] = y.range();
  const upright = axisLeft<number>(y)
    .ticks(UPRIGHT)
    .tickFormat(said(y, UPRIGHT))
    .tickSizeInner(-(width - edge.right - edge.left))
    .tickPadding(LEFT_PAD);
  return (
    <>
      <Ticks axis={upright.tickSizeOuter(0)} transform={`translate(${edge.left},0)`} />
      <Across x={x} base={base} top={top} width={width} big={big} />
      <text x={edge.left - LEFT_PAD} y={edge.top - 14} textAnchor="end">
        {unit}
      </text>
      <text x={width - edge.right} y={base + 35 * big} textAnchor="end">
        {words}
      </text>
    </>
  );
}
