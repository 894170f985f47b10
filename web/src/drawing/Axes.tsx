import type { ScaleLinear } from "d3-scale";

export type Edge = { top: number; right: number; bottom: number; left: number };
export type Scale = ScaleLinear<number, number>;

/** A figure with thin spaces between thousands. */
export const thousands = (n: number) => n.toLocaleString("fr-FR").replace(/\s/g, "\u202f");

/** About how many figures stand under the axis. */
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

/** The grid of a chart with its figures: `unit` over the upright axis, `words` under the other. */
export function Axes({ x, y, edge, width, big, unit, words }: AxesProps) {
  const base = y.range()[0] ?? 0;
  return (
    <>
      {y.ticks(6).map((t) => (
        <g key={`y${t}`}>
          <line className="grid" x1={edge.left} x2={width - edge.right} y1={y(t)} y2={y(t)} />
          <text x={edge.left - 8} y={y(t) + 5} textAnchor="end">
            {thousands(t)}
          </text>
        </g>
      ))}
      {x.ticks(ticksAcross(width, big)).map((t) => (
        <g key={`x${t}`}>
          <line className="grid" x1={x(t)} x2={x(t)} y1={edge.top} y2={base} />
          <text x={x(t)} y={base + 18 * big} textAnchor="middle">
            {thousands(t)}
          </text>
        </g>
      ))}
      <text x={edge.left - 8} y={edge.top - 14} textAnchor="end">
        {unit}
      </text>
      <text x={width - edge.right} y={base + 35 * big} textAnchor="end">
        {words}
      </text>
    </>
  );
}
