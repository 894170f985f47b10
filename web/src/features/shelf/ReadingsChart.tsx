import { scaleLinear, scalePoint } from "d3-scale";
import styled from "styled-components";
import type { Compared } from "../../api/client";
import { colour, face, type } from "../../shared/ui/theme";

const [WIDTH, HEIGHT] = [340, 150];
const EDGE = { top: 12, right: 12, bottom: 26, left: 52 };

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
  .between {
    stroke: ${colour("point")};
    stroke-width: 2;
  }
  .measured {
    fill: ${colour("act")};
  }
  .predicted {
    fill: ${colour("card")};
    stroke: ${colour("ink")};
    stroke-width: 1.5;
  }
`;

/** Measured as a dot, predicted as a ring, what lies between them as a line; one after another. */
export function ReadingsChart({ of }: { of: Compared }) {
  const values = of.points.flatMap((p) => (p.predicted === null ? [p.measured] : [p.measured, p.predicted]));
  const [least, most] = [Math.min(0, ...values), Math.max(...values)];
  const y = scaleLinear([least, most === least ? least + 1 : most], [HEIGHT - EDGE.bottom, EDGE.top]).nice(4);
  const x = scalePoint(
    of.points.map((_, i) => i),
    [EDGE.left + 12, WIDTH - EDGE.right - 12],
  );
  const last = of.points.at(-1);
  const many = of.points.length;
  return (
    <Drawing
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`${of.title}: ${many} read; the last ${last?.words ?? ""}, ${last?.run ?? ""}.`}
    >
      {y.ticks(4).map((t) => (
        <g key={t}>
          <line x1={EDGE.left} x2={WIDTH - EDGE.right} y1={y(t)} y2={y(t)} />
          <text x={EDGE.left - 6} y={y(t) + 5} textAnchor="end">
            {y.tickFormat(4)(t)}
          </text>
        </g>
      ))}
      {of.points.map((p, i) => {
        const at = x(i) ?? EDGE.left;
        return (
          <g key={i}>
            <title>{`${new Date(p.at).toLocaleDateString()}, ${p.run}: ${p.words}`}</title>
            {p.predicted !== null && (
              <>
                <line className="between" x1={at} x2={at} y1={y(p.measured)} y2={y(p.predicted)} />
                <circle className="predicted" cx={at} cy={y(p.predicted)} r="4" />
              </>
            )}
            <circle className="measured" cx={at} cy={y(p.measured)} r="4" />
          </g>
        );
      })}
      <text x={EDGE.left} y={HEIGHT - 8}>
        dot: measured · ring: predicted
      </text>
      <text x={WIDTH - EDGE.right} y={HEIGHT - 8} textAnchor="end">
        {of.unit}
      </text>
    </Drawing>
  );
}
