import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useRef } from "react";
import styled from "styled-components";
import { Axes, edgesOf } from "../../drawing/Axes";
import { Frame, Picture } from "../../drawing/frame";
import { textScale, useSize } from "../../drawing/useSize";
import { colour } from "../../shared/ui/theme";

const ROOM = { top: 30, right: 20, bottom: 40, left: 58 };
const RESIDUAL_HIGH = 0.24;

const Drawing = styled(Picture)`
  text {
    fill: ${colour("soft")};
  }
  .ticks .domain {
    stroke: none;
  }
  .ticks line {
    stroke: ${colour("hairline")};
    stroke-width: 0.75;
  }
  path {
    fill: none;
    stroke: ${colour("ink")};
    stroke-width: 2.5;
  }
  circle {
    fill: ${colour("act")};
  }
  circle[data-out] {
    fill: none;
    stroke: ${colour("soft")};
    stroke-width: 1.5;
  }
  circle[data-odd] {
    fill: ${colour("card")};
    stroke: ${colour("stop")};
    stroke-width: 2.5;
  }
  .zero {
    stroke: ${colour("ink")};
  }
  .residual {
    stroke: ${colour("act")};
    stroke-width: 1.5;
  }
`;

export type GaugeSpot = { number: number; rpm: number; grip: number; left_out: boolean; off: number | null };
type Props = {
  spots: readonly GaugeSpot[];
  curve: readonly (readonly number[])[];
  outliers: readonly number[];
  unit: string;
};

/** The readings with the fitted curve, and below them how far each stands off it. */
export function GaugeChart({ spots, curve, outliers, unit }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(frame);
  const big = textScale();
  const room = edgesOf(ROOM, big);
  const edge = { ...room, bottom: room.bottom + (curve.length > 0 ? height * RESIDUAL_HIGH : 0) };
  const rpm = Math.max(1000, ...spots.map((s) => s.rpm)) * 1.04;
  const grip = Math.max(1, ...spots.map((s) => s.grip), ...curve.map((p) => p[1] ?? 0)) * 1.08;
  const x = scaleLinear([0, rpm], [edge.left, Math.max(edge.left + 1, width - edge.right)]);
  const y = scaleLinear([0, grip], [Math.max(edge.top + 1, height - edge.bottom), edge.top]);
  const path = line<readonly number[]>(
    (p) => x(p[0] ?? 0),
    (p) => y(p[1] ?? 0),
  );
  const off = spots.flatMap((s) => (s.off === null ? [] : [{ ...s, by: s.off }]));
  const most = Math.max(0.001, ...off.map((s) => Math.abs(s.by)));
  const middle = height - (height * RESIDUAL_HIGH) / 2 - 4;
  const high = (height * RESIDUAL_HIGH) / 2 - 12;
  const fitted =
    curve.length > 0 ? `, with the fitted curve; the farthest stands ${most.toFixed(1)} ${unit} off it` : "";
  const words = `${spots.length} readings of grip against spindle speed${fitted}.`;
  return (
    <Frame ref={frame}>
      {width > 0 && (
        <Drawing role="img" aria-label={words}>
          <Axes x={x} y={y} edge={edge} width={width} big={big} unit={unit} words="spindle, rpm" />
          {spots.map((s) => (
            <circle
              key={s.number}
              cx={x(s.rpm)}
              cy={y(s.grip)}
              r={outliers.includes(s.number) ? 6 : 2.5}
              data-out={s.left_out || undefined}
              data-odd={outliers.includes(s.number) || undefined}
            />
          ))}
          {curve.length > 0 && <path d={path([...curve]) ?? ""} />}
          {off.length > 0 && (
            <>
              <line className="zero" x1={edge.left} x2={width - edge.right} y1={middle} y2={middle} />
              <text x={edge.left - 8} y={middle + 5} textAnchor="end">
                ± {most.toFixed(1)}
              </text>
              <text x={edge.left + 4} y={middle - high - 2}>
                residuals, {unit}
              </text>
              {off.map((s) => (
                <line
                  key={s.number}
                  className="residual"
                  x1={x(s.rpm)}
                  x2={x(s.rpm)}
                  y1={middle}
                  y2={middle - (s.by / most) * high}
                />
              ))}
            </>
          )}
        </Drawing>
      )}
    </Frame>
  );
}
