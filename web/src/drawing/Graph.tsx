import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useRef } from "react";
import styled from "styled-components";
import type { Graph as Content } from "../api/client";
import { colour } from "../shared/ui/theme";
import { Across, Axes, edgesOf } from "./Axes";
import { ChartPicture } from "./ChartPicture";
import { Frame } from "./frame";
import { textScale, useSize } from "./useSize";

const ROOM = { top: 30, right: 26, bottom: 44, left: 74 };
type Point = readonly number[];

const Drawing = styled(ChartPicture)`
  [data-style="main"] {
    stroke: ${colour("ink")};
    stroke-width: 2.5;
  }
  [data-style="other"] {
    stroke: ${colour("ink")};
    stroke-width: 1.5;
    stroke-dasharray: 10 5;
  }
  [data-style="aim"] {
    stroke: ${colour("point")};
    stroke-width: 1.75;
    stroke-dasharray: 3 4;
  }
  [data-style="limit"] {
    stroke: ${colour("act")};
    stroke-width: 1.5;
    stroke-dasharray: 8 5;
  }
  [data-style="danger"] {
    stroke: ${colour("stop")};
    stroke-width: 1.5;
    stroke-dasharray: 8 3 2 3;
  }
  text[data-of="danger"] {
    fill: ${colour("stop")};
  }
  text[data-of="limit"] {
    fill: ${colour("act")};
  }
  circle {
    fill: ${colour("ink")};
  }
  circle[data-mark] {
    fill: ${colour("point")};
  }
`;

/** A figure against another, from the server's points; an axis without a label has no scale. */
export function Graph({ graph }: { graph: Content }) {
  const frame = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(frame);
  const big = textScale();
  const edge = edgesOf({ ...ROOM, left: graph.y.label ? ROOM.left : 16 }, big);
  const base = Math.max(edge.top + 1, height - edge.bottom);
  const right = Math.max(edge.left + 1, width - edge.right);
  const x = scaleLinear([graph.x.low, graph.x.high], [edge.left, right]);
  const y = scaleLinear([graph.y.low, graph.y.high], [base, edge.top]);
  const path = line<Point>(
    (p) => x(p[0] ?? 0),
    (p) => y(p[1] ?? 0),
  );
  const named = (label: string, unit: string) => [label, unit].filter(Boolean).join(", ");
  const under = named(graph.x.label, graph.x.unit);
  const axes = { x, y, edge, width, big, unit: named(graph.y.label, graph.y.unit), words: under };
  return (
    <Frame ref={frame}>
      {width > 0 && (
        <Drawing role="img" aria-label={graph.words}>
          {graph.y.label ? (
            <Axes {...axes} unit="" />
          ) : (
            <>
              <Across x={x} base={base} top={edge.top} width={width} big={big} />
              <text x={right} y={base + 35 * big} textAnchor="end">
                {under}
              </text>
            </>
          )}
          {graph.y.label && (
            <text x={4} y={edge.top - 14}>
              {axes.unit}
            </text>
          )}
          {graph.levels.map((l) => (
            <Level key={`${l.axis} ${l.label} ${l.at}`} level={l} at={{ x, y }} box={{ edge, base, right }} />
          ))}
          {graph.lines.map((l, i) => {
            const [ex = 0, ey = 0] = l.points.at(-1) ?? [];
            const near = x(ex) > right - 90;
            return (
              <g key={`${l.label} ${i}`}>
                <path data-style={l.style} d={path(l.points) ?? ""} />
                {l.label && (
                  <text
                    className="strong"
                    x={near ? x(ex) : x(ex) + 6}
                    y={near ? y(ey) - 12 : y(ey) + 5}
                    textAnchor={near ? "end" : "start"}
                  >
                    {l.label}
                  </text>
                )}
              </g>
            );
          })}
          {graph.dots.map(([dx = 0, dy = 0]) => (
            <circle key={`${dx} ${dy}`} cx={x(dx)} cy={y(dy)} r={3.5} />
          ))}
          {graph.mark && <circle data-mark cx={x(graph.mark[0] ?? 0)} cy={y(graph.mark[1] ?? 0)} r={6} />}
        </Drawing>
      )}
    </Frame>
  );
}

type LevelProps = {
  level: Content["levels"][number];
  at: { x: (v: number) => number; y: (v: number) => number };
  box: { edge: typeof ROOM; base: number; right: number };
};

function Level({ level, at, box }: LevelProps) {
  const { edge, base, right } = box;
  const place = level.axis === "x" ? at.x(level.at) : at.y(level.at);
  const ends =
    level.axis === "x"
      ? { x1: place, x2: place, y1: edge.top, y2: base }
      : { x1: edge.left, x2: right, y1: place, y2: place };
  const words =
    level.axis === "x"
      ? { x: place, y: edge.top - 8, textAnchor: "middle" as const }
      : { x: edge.left + 8, y: place - 6 };
  return (
    <>
      <line data-style={level.style} {...ends} />
      {level.label && (
        <text data-of={level.style} {...words}>
          {level.label}
        </text>
      )}
    </>
  );
}
