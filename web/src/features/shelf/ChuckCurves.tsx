import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useRef } from "react";
import styled from "styled-components";
import type { ChuckChart } from "../../api/client";
import { Axes, edgesOf } from "../../drawing/Axes";
import { Frame, Picture } from "../../drawing/frame";
import { textScale, useSize } from "../../drawing/useSize";
import { colour } from "../../shared/ui/theme";

/** Room for the figures around the chart, at usual text size. */
const ROOM = { top: 26, right: 20, bottom: 38, left: 58 };

const Drawing = styled(Picture)`
  text {
    fill: ${colour("soft")};
    paint-order: stroke;
    stroke: ${colour("card")};
    stroke-width: 4px;
    stroke-linejoin: round;
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
  }
  .own {
    stroke: ${colour("act")};
    stroke-width: 2.5;
  }
  .point {
    fill: ${colour("card")};
    stroke: ${colour("act")};
    stroke-width: 2;
  }
  .end {
    fill: ${colour("ink")};
  }
  .end[data-overload] {
    fill: ${colour("stop")};
  }
`;

type Point = readonly number[];
const DASHES = ["", "9 4", "3 4"];

/** A chuck's chart as its points are typed, and the grip that is left higher up. All points are the server's. */
export function ChuckCurves({ chart }: { chart: ChuckChart }) {
  const frame = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(frame);
  const big = textScale();
  const edge = edgesOf(ROOM, big);
  const all = [...chart.points, ...chart.curves.flatMap((c) => c.points)];
  const most = (axis: 0 | 1) => Math.max(1, ...all.map((p) => p[axis] ?? 0)) * 1.06;
  const x = scaleLinear([0, most(0)], [edge.left, Math.max(edge.left + 1, width - edge.right)]);
  const y = scaleLinear([0, most(1)], [Math.max(edge.top + 1, height - edge.bottom), edge.top]);
  const path = line<Point>(
    (p) => x(p[0] ?? 0),
    (p) => y(p[1] ?? 0),
  );
  const words = chart.curves.map((c) => `Gripping ${c.where}: ${c.text}.`).join(" ");
  return (
    <Frame ref={frame}>
      {width > 0 && (
        <Drawing
          role="img"
          aria-label={`Grip against pressure. ${words || "No curve yet: figures are missing."}`}
        >
          <Axes
            x={x}
            y={y}
            edge={edge}
            width={width}
            big={big}
            unit={chart.grip_unit}
            words={`gauge pressure, ${chart.pressure_unit}`}
          />
          <path className="own" d={path(chart.points) ?? ""} />
          {chart.curves.map((c, i) => (
            <path
              key={c.height}
              data-curve={c.height}
              d={path(c.points) ?? ""}
              strokeDasharray={DASHES[i]}
              strokeWidth={1.5}
            />
          ))}
          {chart.curves.map((c) => {
            const [px = 0, py = 0] = c.points.at(-1) ?? [];
            const left = x(px) > width - 120;
            return (
              <g key={c.height}>
                <circle className="end" data-overload={c.overload || undefined} cx={x(px)} cy={y(py)} r="4" />
                <text
                  x={x(px) + (left ? -12 : 8)}
                  y={y(py) + (left ? 4 : 18)}
                  textAnchor={left ? "end" : "start"}
                >
                  at {c.height}
                </text>
              </g>
            );
          })}
          {chart.points.map(([px = 0, py = 0]) => (
            <circle key={px} className="point" cx={x(px)} cy={y(py)} r="4.5" />
          ))}
        </Drawing>
      )}
    </Frame>
  );
}
