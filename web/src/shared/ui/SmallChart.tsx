import type { ScaleLinear } from "d3-scale";
import type { ReactNode } from "react";
import styled from "styled-components";
import { colour, face, type } from "./theme";

const [WIDTH, HEIGHT] = [340, 150];
const EDGE = { top: 12, right: 12, bottom: 26 };

/** Where figures stand in a small chart with so much room for its numbers on the left. */
export const roomFor = (left: number) => ({
  x: [left, WIDTH - EDGE.right] as const,
  y: [HEIGHT - EDGE.bottom, EDGE.top] as const,
});

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
  [data-mark="pointed"] {
    stroke: ${colour("point")};
    stroke-width: 2;
  }
  [data-mark="dotted"] {
    stroke: ${colour("point")};
    stroke-dasharray: 2 3;
  }
  [data-mark="ring"] {
    fill: ${colour("card")};
    stroke: ${colour("ink")};
    stroke-width: 1.5;
  }
`;

type Props = {
  /** What the chart says, for who does not see it. */
  words: string;
  left: number;
  y: ScaleLinear<number, number>;
  /** A number at the axis. */
  number: (value: number) => string;
  /** What stands below, on the left and on the right. */
  below: readonly [string | undefined, string];
  children: ReactNode;
};

/** A small chart beside its words: its numbers on the left, lines across, something said below. */
export function SmallChart({ words, left, y, number, below, children }: Props) {
  return (
    <Drawing viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={words}>
      {y.ticks(4).map((t) => (
        <g key={t}>
          <line x1={left} x2={WIDTH - EDGE.right} y1={y(t)} y2={y(t)} />
          <text x={left - 6} y={y(t) + 5} textAnchor="end">
            {number(t)}
          </text>
        </g>
      ))}
      {children}
      <text x={left} y={HEIGHT - 8}>
        {below[0]}
      </text>
      <text x={WIDTH - EDGE.right} y={HEIGHT - 8} textAnchor="end">
        {below[1]}
      </text>
    </Drawing>
  );
}
