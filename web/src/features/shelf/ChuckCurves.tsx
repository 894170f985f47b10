import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useRef } from "react";
import styled from "styled-components";
import type { ChuckChart } from "../../api/client";
import { Axes, edgesOf } from "../../drawing/Axes";
import { Frame, Picture } from "../../drawing/frame";
import { Leader } from "../../drawing/Leader";
import { place } from "../../drawing/place";
import { axesTaken, besideSpots } from "../../drawing/texts";
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
  .leader {
    stroke: ${colour("soft")};
  }
  .end[data-overload] {
    fill: ${colour("stop")};
  }
`;

type Point = readonly number[];
const DOT = 5;
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
  const axes = {
    x,
    y,
    edge,
    width,
    big,
    unit: chart.grip_unit,
    words: `gauge pressure, ${chart.pressure_unit}`,
  };
  const ends = chart.curves.map((c) => {
    const [px = 0, py = 0] = c.points.at(-1) ?? [];
    return { text: `at ${c.height}`, height: c.height, overload: c.overload, point: { x: x(px), y: y(py) } };
  });
  const dot = ({ x: left, y: top }: { x: number; y: number }) => ({
    x: left - DOT,
    y: top - DOT,
    width: 2 * DOT,
    height: 2 * DOT,
  });
  const marked = [
    ...chart.points.map(([px = 0, py = 0]) => ({ x: x(px), y: y(py) })),
    ...ends.map((e) => e.point),
  ];
  const taken = [...axesTaken(axes), ...marked.map(dot)];
  const boxes = place(
    ends.map((e) => ({ spots: besideSpots(e.text, e.point) })),
    { width, height },
    taken,
  );
  const words = chart.curves.map((c) => `Gripping ${c.where}: ${c.text}.`).join(" ");
  return (
    <Frame ref={frame}>
      {width > 0 && (
        <Drawing
          role="img"
          aria-label={`Grip against pressure. ${words || "No curve yet: figures are missing."}`}
        >
          <Axes {...axes} />
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
          {ends.map(({ text, height: at, overload, point }, i) => {
            const box = boxes[i];
            return (
              <g key={at}>
                <circle
                  className="end"
                  data-overload={overload || undefined}
                  cx={point.x}
                  cy={point.y}
                  r="4"
                />
                {box && (
                  <>
                    <Leader box={box} point={point} />
                    <text x={box.x} y={box.y + 0.76 * box.height}>
                      {text}
                    </text>
                  </>
                )}
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
