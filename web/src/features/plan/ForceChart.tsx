import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import { useId, useRef, useState } from "react";
import styled from "styled-components";
import type { Chart } from "../../api/client";
import { Axes, edgesOf } from "../../drawing/Axes";
import { ChartPicture } from "../../drawing/ChartPicture";
import { Frame } from "../../drawing/frame";
import { Leader } from "../../drawing/Leader";
import { textScale, useSize } from "../../drawing/useSize";
import { TextButton } from "../../shared/ui/Button";
import { colour, face, space, type } from "../../shared/ui/theme";
import { ForceHandles, type Pull } from "./ForceHandles";
import { forceTexts } from "./forceTexts";

/** What can be laid beside the grip. */
const Beside = styled.div`
  position: absolute;
  bottom: ${space(1)};
  left: ${space(3.5)};
  display: flex;
  gap: ${space(3)};
  font: 400 ${type.label} ${face.narrow};
  button {
    color: ${colour("soft")};
    text-decoration: none;
  }
  button[aria-pressed="true"] {
    color: ${colour("ink")};
    text-decoration: underline;
  }
`;

/** Room for the figures around the chart, at usual text size. */
const ROOM = { top: 34, right: 26, bottom: 40, left: 58 };

type Point = readonly number[];

type Props = { chart: Chart; pull: Pull };

/** The chart in words. */
function wordsOf(chart: Chart): string {
  return [
    `Grip against spindle speed. Standing still ${chart.static_text}`,
    `the worst cut needs ${chart.demand_text}`,
    `the cap is ${chart.cap_text} rpm`,
    `the program reaches ${chart.top_text} rpm.${chart.wall === null ? "" : ` The wall stands ${chart.wall_text}.`}`,
    ...chart.points.map(
      (p) => `${p.name} at ${p.text} rpm, cap ${p.cap_text}${p.nearest ? ", the nearest" : ""}`,
    ),
  ].join("; ");
}

/** Grip against spindle speed: what is left, what is asked, the cap where they cross. All points are the server's. */
export function ForceChart({ chart, pull }: Props) {
  const [beside, setBeside] = useState<readonly string[] | null>(null);
  const id = useId();
  const frame = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(frame);
  const big = textScale();
  const edge = edgesOf(ROOM, big);
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
  const offered = chart.curves.slice(2);
  // Until the setter says otherwise, the first of the others stands beside.
  const picked = beside ?? offered.slice(0, 1).map((c) => c.label);
  const others = offered.filter((c) => picked.includes(c.label));
  const between =
    grip && corner ? grip.points.map((p, i) => [p[0] ?? 0, p[1] ?? 0, corner.points[i]?.[1] ?? 0]) : [];
  const axes = { x, y, edge, width, big, unit: chart.unit, words: "spindle, rpm" };
  return (
    <Frame ref={frame}>
      {width > 0 && (
        <ChartPicture role="group" aria-label={wordsOf(chart)}>
          <defs>
            <pattern id={id} width="6" height="6" patternUnits="userSpaceOnUse">
              <circle className="dots" cx="3" cy="3" r="0.9" />
            </pattern>
          </defs>
          <Axes {...axes} />
          <path d={band(between) ?? ""} style={{ fill: `url(#${id})` }} />
          {corner && <path className="corner" d={path(corner.points) ?? ""} />}
          {others.map((c) => (
            <path key={c.label} className="other" d={path(c.points) ?? ""} />
          ))}
          {grip && <path className="grip" d={path(grip.points) ?? ""} data-curve="grip" />}
          <path className="demand-corner" d={path(chart.demand_corner) ?? ""} />
          <path className="demand" d={path(chart.demand) ?? ""} data-curve="demand" />
          {chart.allowable <= chart.force_most && (
            <line
              className="chuck"
              x1={edge.left}
              x2={width - edge.right}
              y1={y(chart.allowable)}
              y2={y(chart.allowable)}
            />
          )}
          {chart.wall !== null && chart.wall <= chart.force_most && (
            <line
              className="wall"
              x1={edge.left}
              x2={width - edge.right}
              y1={y(chart.wall)}
              y2={y(chart.wall)}
            />
          )}
          {chart.points.map((p) => (
            <g
              key={p.name}
              className="cut"
              data-over={p.over || undefined}
              data-nearest={p.nearest || undefined}
            >
              {(p.nearest || p.over) && (
                <line
                  x1={x(p.rpm)}
                  x2={x(p.rpm)}
                  y1={y(p.force)}
                  y2={y(Math.min(p.grip, chart.force_most))}
                />
              )}
              <circle cx={x(p.rpm)} cy={y(p.force)} r={p.path === null ? 5 : 4} />
            </g>
          ))}
          <line
            className="cap-line"
            x1={x(chart.cap)}
            x2={x(chart.cap)}
            y1={edge.top}
            y2={height - edge.bottom}
          />
          <circle className="cap-dot" cx={x(chart.cap)} cy={y(chart.cap_force)} r="6" data-cap={chart.cap} />
          {forceTexts(chart, { axes, height, others }).map((t) => (
            <g key={t.key}>
              {t.point && <Leader box={t.box} point={t.point} />}
              <text
                className={t.kind}
                x={t.box.x + t.box.width / 2}
                y={t.box.y + 0.76 * t.box.height}
                textAnchor="middle"
              >
                {t.text}
              </text>
            </g>
          ))}
          <ForceHandles chart={chart} x={x} y={y} pull={pull} />
        </ChartPicture>
      )}
      {offered.length > 0 && (
        <Beside>
          {offered.map((c) => (
            <TextButton
              key={c.label}
              aria-pressed={picked.includes(c.label)}
              onPress={() =>
                setBeside(
                  picked.includes(c.label) ? picked.filter((l) => l !== c.label) : [...picked, c.label],
                )
              }
            >
              {c.label}
            </TextButton>
          ))}
        </Beside>
      )}
    </Frame>
  );
}
