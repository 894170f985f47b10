import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import { useId, useRef } from "react";
import styled from "styled-components";
import type { Chart } from "../../api/client";
import { Frame, Picture } from "../../drawing/frame";
import { textScale, useSize } from "../../drawing/useSize";
import { colour } from "../../shared/ui/theme";

/** Room for the figures around the chart, at usual text size. */
const ROOM = { top: 34, right: 26, bottom: 40, left: 58 };

const Drawing = styled(Picture)`
  text {
    fill: ${colour("soft")};
    paint-order: stroke;
    stroke: ${colour("card")};
    stroke-width: 4px;
    stroke-linejoin: round;
  }
  text.strong {
    fill: ${colour("ink")};
  }
  text.cap {
    fill: ${colour("pointInk")};
    font-weight: 600;
  }
  text.over {
    fill: ${colour("stop")};
    font-weight: 600;
  }
  .grid {
    stroke: ${colour("hairline")};
    stroke-width: 0.75;
  }
  .axis {
    stroke: ${colour("soft")};
  }
  path {
    fill: none;
  }
  .grip {
    stroke: ${colour("ink")};
    stroke-width: 2.5;
  }
  .corner {
    stroke: ${colour("soft")};
    stroke-width: 1;
  }
  .other {
    stroke: ${colour("ink")};
    stroke-width: 1.5;
    stroke-dasharray: 3 4;
  }
  .demand {
    stroke: ${colour("ink")};
    stroke-width: 2;
    stroke-dasharray: 14 5;
  }
  .cap-line {
    stroke: ${colour("point")};
    stroke-width: 2.5;
  }
  .cap-dot {
    fill: ${colour("point")};
  }
  .top-line {
    stroke: ${colour("act")};
    stroke-width: 2;
    stroke-dasharray: 2 4;
  }
  .top-line[data-over] {
    stroke: ${colour("stop")};
  }
  .dots {
    fill: ${colour("soft")};
  }
`;

type Point = readonly number[];

/** Grip against spindle speed: what is left, what is asked, the cap where they cross. All points are the server's. */
export function ForceChart({ chart }: { chart: Chart }) {
  const id = useId();
  const frame = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(frame);
  const big = textScale();
  const edge = {
    top: ROOM.top * big,
    right: ROOM.right * big,
    bottom: ROOM.bottom * big,
    left: ROOM.left * big,
  };
  const x = scaleLinear([0, chart.rpm_most], [edge.left, Math.max(edge.left + 1, width - edge.right)]);
  const y = scaleLinear([0, chart.force_most], [Math.max(edge.top + 1, height - edge.bottom), edge.top]);
  const path = line<Point>(
    (p) => x(p[0] ?? 0),
    (p) => y(p[1] ?? 0),
  );
  const band = area<Point>(
    (p) => x(p[0] ?? 0),
    (p) => y(p[1] ?? 0),
    (p) => y(p[2] ?? 0),
  );
  const [grip, corner] = chart.curves;
  const others = chart.curves.slice(2);
  const between =
    grip && corner ? grip.points.map((p, i) => [p[0] ?? 0, p[1] ?? 0, corner.points[i]?.[1] ?? 0]) : [];
  const over = chart.top > chart.cap;
  const thousand = (n: number) => n.toLocaleString("fr-FR").replace(/\s/g, "\u202f");
  const demandLabel = `worst cut needs ${chart.demand_text}`;
  const capRight = x(chart.cap) > width - 110;
  return (
    <Frame ref={frame}>
      {width > 0 && (
        <Drawing
          role="img"
          aria-label={`Grip against spindle speed. Standing still ${chart.static_text}; the worst cut needs ${chart.demand_text}; the cap is ${chart.cap_text} rpm; the program reaches ${chart.top_text} rpm.`}
        >
          <defs>
            <pattern id={id} width="6" height="6" patternUnits="userSpaceOnUse">
              <circle className="dots" cx="3" cy="3" r="0.9" />
            </pattern>
          </defs>
          {y.ticks(6).map((t) => (
            <g key={`y${t}`}>
              <line className="grid" x1={edge.left} x2={width - edge.right} y1={y(t)} y2={y(t)} />
              <text x={edge.left - 8} y={y(t) + 5} textAnchor="end">
                {thousand(t)}
              </text>
            </g>
          ))}
          {x.ticks(width < 500 * big ? 4 : 8).map((t) => (
            <g key={`x${t}`}>
              <line className="grid" x1={x(t)} x2={x(t)} y1={edge.top} y2={height - edge.bottom} />
              <text x={x(t)} y={height - edge.bottom + 18 * big} textAnchor="middle">
                {thousand(t)}
              </text>
            </g>
          ))}
          <text x={edge.left - 8} y={edge.top - 14} textAnchor="end">
            {chart.unit}
          </text>
          <text x={width - edge.right} y={height - 5} textAnchor="end">
            spindle, rpm
          </text>
          <path d={band(between) ?? ""} style={{ fill: `url(#${id})` }} />
          {corner && <path className="corner" d={path(corner.points) ?? ""} />}
          {others.map((c) => (
            <path key={c.label} className="other" d={path(c.points) ?? ""} />
          ))}
          {grip && <path className="grip" d={path(grip.points) ?? ""} data-curve="grip" />}
          <line
            className="demand"
            x1={edge.left}
            x2={width - edge.right}
            y1={y(chart.demand)}
            y2={y(chart.demand)}
          />
          <line
            className="top-line"
            data-over={over || undefined}
            x1={x(chart.top)}
            x2={x(chart.top)}
            y1={edge.top + 14}
            y2={height - edge.bottom}
          />
          <line
            className="cap-line"
            x1={x(chart.cap)}
            x2={x(chart.cap)}
            y1={edge.top}
            y2={height - edge.bottom}
          />
          <circle className="cap-dot" cx={x(chart.cap)} cy={y(chart.cap_force)} r="6" data-cap={chart.cap} />
          <text
            className="cap"
            x={x(chart.cap) + (capRight ? -7 : 7)}
            y={edge.top - 4}
            textAnchor={capRight ? "end" : "start"}
          >
            cap {chart.cap_text}
          </text>
          <text
            className={over ? "over" : "strong"}
            transform={`translate(${x(chart.top) + (over ? 16 : -6)} ${height - edge.bottom - 8}) rotate(-90)`}
          >
            program reaches {chart.top_text}
          </text>
          <text className="strong" x={width - edge.right - 6} y={y(chart.demand) - 8} textAnchor="end">
            {demandLabel}
          </text>
          {others.map((c) => {
            const p = c.points[Math.floor(c.points.length * 0.62)];
            return (
              p && (
                <text key={c.label} x={x(p[0] ?? 0) + 8} y={y(p[1] ?? 0) - 6}>
                  {c.label}
                </text>
              )
            );
          })}
        </Drawing>
      )}
    </Frame>
  );
}
