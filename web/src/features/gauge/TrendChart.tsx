import { scaleLinear, scaleTime } from "d3-scale";
import { line } from "d3-shape";
import styled from "styled-components";
import { colour, face, type } from "../../shared/ui/theme";

const [WIDTH, HEIGHT] = [340, 150];
const EDGE = { top: 12, right: 12, bottom: 26, left: 40 };

const Drawing = styled.svg`
  width: 100%;
  background: ${colour("card")};
  text {
    font: 400 ${type.small} ${face.narrow};
    fill: ${colour("soft")};
  }
  line {
    stroke: ${colour("hairline")};
  }
  path {
    fill: none;
    stroke: ${colour("ink")};
    stroke-width: 2;
  }
  circle {
    fill: ${colour("act")};
  }
  .greased {
    stroke: ${colour("point")};
    stroke-dasharray: 2 3;
  }
`;

type Props = { points: readonly { on: string; condition: number }[]; greased: readonly string[] };

/** Measured over book, run by run, with the days on which the chuck was greased. */
export function TrendChart({ points, greased }: Props) {
  const days = points.map((p) => new Date(p.on));
  const x = scaleTime([days[0] ?? new Date(), days.at(-1) ?? new Date()], [EDGE.left, WIDTH - EDGE.right]);
  const low = Math.min(0.5, ...points.map((p) => p.condition)) - 0.05;
  const y = scaleLinear([low, 1.05], [HEIGHT - EDGE.bottom, EDGE.top]);
  const path = line<{ on: string; condition: number }>(
    (p) => x(new Date(p.on)),
    (p) => y(p.condition),
  );
  const [first, last] = [points[0], points.at(-1)];
  const said = (p?: { on: string; condition: number }) => `${p?.condition.toFixed(2)} on ${p?.on}`;
  const words = `Condition from ${said(first)} to ${said(last)}.`;
  return (
    <Drawing viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={words}>
      {y.ticks(4).map((t) => (
        <g key={t}>
          <line x1={EDGE.left} x2={WIDTH - EDGE.right} y1={y(t)} y2={y(t)} />
          <text x={EDGE.left - 6} y={y(t) + 5} textAnchor="end">
            {t.toFixed(1)}
          </text>
        </g>
      ))}
      {greased
        .filter((on) => first && last && on >= first.on && on <= last.on)
        .map((on) => (
          <line
            key={on}
            className="greased"
            x1={x(new Date(on))}
            x2={x(new Date(on))}
            y1={EDGE.top}
            y2={HEIGHT - EDGE.bottom}
          >
            <title>greased {on}</title>
          </line>
        ))}
      <path d={path([...points]) ?? ""} />
      {points.map((p) => (
        <circle key={p.on} cx={x(new Date(p.on))} cy={y(p.condition)} r="4">
          <title>{`${p.on}: ${p.condition.toFixed(2)}`}</title>
        </circle>
      ))}
      <text x={EDGE.left} y={HEIGHT - 8}>
        {first?.on}
      </text>
      <text x={WIDTH - EDGE.right} y={HEIGHT - 8} textAnchor="end">
        {last?.on}; dotted: greased
      </text>
    </Drawing>
  );
}
