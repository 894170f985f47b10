import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useState } from "react";
import styled from "styled-components";
import type { RunningDimension } from "../../api/client";
import { Segments } from "../../shared/ui/Segments";
import { colour, face, size, space, type } from "../../shared/ui/theme";

const NEWEST = 60;
const EDGE = { top: 22, right: 20, bottom: 40, left: 84 };
const [WIDTH, HEIGHT] = [700, 330];

const Figure = styled.figure`
  display: grid;
  gap: ${space(2)};
  > figcaption {
    display: flex;
    flex-wrap: wrap;
    gap: ${space(2)} ${space(5)};
    align-items: center;
    font: 400 ${type.run} ${face.narrow};
    color: ${colour("soft")};
  }
`;

const Drawing = styled.svg`
  width: 100%;
  background: ${colour("card")};
  text {
    font: 400 17px ${face.narrow};
    fill: ${colour("soft")};
  }
  [data-mark="work"] {
    fill: ${colour("partFill")};
  }
  [data-line="print"] {
    stroke: ${colour("stop")};
    stroke-width: 2;
  }
  [data-line="work"] {
    stroke: ${colour("act")};
    stroke-dasharray: 8 6;
  }
  [data-line="spread"] {
    stroke: ${colour("hairline")};
    stroke-width: 1.5;
  }
  [data-line="trend"] {
    fill: none;
    stroke: ${colour("point")};
    stroke-width: 3;
  }
  [data-line="ahead"] {
    fill: none;
    stroke: ${colour("point")};
    stroke-width: 2;
    stroke-dasharray: 6 5;
  }
  [data-line="change"] {
    stroke: ${colour("ink")};
    stroke-dasharray: 2 4;
  }
  [data-line="axis"] {
    stroke: ${colour("hairline")};
  }
  [data-mark="cone"] {
    fill: ${colour("steel")};
  }
  [data-mark="piece"] {
    fill: ${colour("ink")};
  }
  [data-mark="sign"] {
    fill: none;
    stroke: ${colour("stop")};
    stroke-width: ${size.thick};
  }
  text[data-of="print"] {
    fill: ${colour("stop")};
  }
  text[data-of="work"] {
    fill: ${colour("act")};
  }
  text[data-of="change"] {
    fill: ${colour("ink")};
  }
`;

type Props = { dimension: RunningDimension };

/** What the chart says, for who does not see it. */
function wordsOf({ title, chart, last, told }: RunningDimension): string {
  if (chart.pieces.length === 0) return `Chart of ${title}: nothing was measured yet`;
  const signs = chart.signs.map((s) => `piece ${s.piece}, ${s.words}`).join("; ");
  return [
    `Chart of ${title}: ${chart.pieces.length} pieces, the last ${last}. ${told}`,
    chart.limit_sure === null ? "" : `${chart.limit_sure} pieces to the limit for sure.`,
    signs && `Standing out: ${signs}.`,
  ]
    .filter(Boolean)
    .join(" ");
}

const decimals = (unit: string) => (unit === "in" ? 4 : unit === "mm" ? 3 : 1);

/** The pieces of a dimension one after another, its limits, where each stretch goes, and where the last one leads. */
export function RunChart({ dimension }: Props) {
  const { chart, unit } = dimension;
  const [all, setAll] = useState(false);
  const many = chart.pieces.length > NEWEST;
  const from = many && !all ? (chart.pieces.at(-NEWEST) ?? 0) : (chart.pieces[0] ?? 1);
  const last = chart.pieces.at(-1) ?? 1;
  const to = Math.max(chart.forecast?.last ?? 0, last + Math.ceil((last - from) * 0.06), from + 10);
  const x = scaleLinear([from, to], [EDGE.left, WIDTH - EDGE.right]);
  const shown = chart.pieces
    .map((piece, i) => ({ piece, value: chart.values[i] ?? 0 }))
    .filter((p) => p.piece >= from);
  const known = [chart.print_low, chart.print_high, ...shown.map((p) => p.value)].filter((v) => v !== null);
  const [low, high] = known.length > 0 ? [Math.min(...known), Math.max(...known)] : [0, 1];
  const room = (high - low || Math.abs(high) * 1e-4 || 1) * 0.12;
  const y = scaleLinear([low - room, high + room], [HEIGHT - EDGE.bottom, EDGE.top]);
  const number = (v: number) => v.toFixed(decimals(unit));
  const limits = [
    { of: "print", words: "print", value: chart.print_high },
    { of: "work", words: "work to", value: chart.work_high },
    { of: "work", words: "", value: chart.work_low },
    { of: "print", words: "", value: chart.print_low },
  ].filter((l): l is { of: string; words: string; value: number } => l.value !== null);
  const path = line<[number, number]>(
    ([px]) => x(px),
    ([, py]) => y(py),
  );
  const ahead = chart.forecast;
  return (
    <Figure>
      <Drawing viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={wordsOf(dimension)}>
        {chart.work_low !== null && chart.work_high !== null && (
          <rect
            data-mark="work"
            x={EDGE.left}
            width={WIDTH - EDGE.left - EDGE.right}
            y={y(chart.work_high)}
            height={y(chart.work_low) - y(chart.work_high)}
          />
        )}
        <line
          data-line="axis"
          x1={EDGE.left}
          x2={WIDTH - EDGE.right}
          y1={HEIGHT - EDGE.bottom}
          y2={HEIGHT - EDGE.bottom}
        />
        {x
          .ticks(6)
          .filter(Number.isInteger)
          .map((t) => (
            <text key={t} x={x(t)} y={HEIGHT - 14} textAnchor="middle">
              {t}
            </text>
          ))}
        {ahead && (
          <>
            <path
              data-mark="cone"
              d={`${path([
                [ahead.first, ahead.now],
                [ahead.last, ahead.high],
                [ahead.last, ahead.low],
              ])}Z`}
            />
            <path
              data-line="ahead"
              d={
                path([
                  [ahead.first, ahead.now],
                  [ahead.last, ahead.likely],
                ]) ?? ""
              }
            />
          </>
        )}
        {limits.map((l) => (
          <g key={`${l.of} ${l.value}`}>
            <line data-line={l.of} x1={EDGE.left} x2={WIDTH - EDGE.right} y1={y(l.value)} y2={y(l.value)} />
            <text data-of={l.of} x={EDGE.left - 8} y={y(l.value) + 6} textAnchor="end">
              {number(l.value)}
            </text>
            {l.words && (
              <text data-of={l.of} x={WIDTH - EDGE.right} y={y(l.value) - 5} textAnchor="end">
                {l.words}
              </text>
            )}
          </g>
        ))}
        {chart.stretches
          .filter((s) => s.last >= from)
          .map((s) => (
            <g key={s.first}>
              {s.half !== null &&
                [s.half, -s.half].map((off) => (
                  <path
                    key={off}
                    data-line="spread"
                    d={
                      path([
                        [Math.max(s.first, from), at(s, Math.max(s.first, from)) + off],
                        [s.last, s.ends + off],
                      ]) ?? ""
                    }
                  />
                ))}
              <path
                data-line="trend"
                d={
                  path([
                    [Math.max(s.first, from), at(s, Math.max(s.first, from))],
                    [s.last, s.ends],
                  ]) ?? ""
                }
              />
            </g>
          ))}
        {chart.marks
          .filter((m) => m.piece >= from)
          .map((m) => (
            <g key={`${m.piece} ${m.words}`}>
              <line
                data-line="change"
                x1={x(m.piece + 0.5)}
                x2={x(m.piece + 0.5)}
                y1={EDGE.top}
                y2={HEIGHT - EDGE.bottom}
              />
              <text
                data-of="change"
                x={x(m.piece + 0.5) + (isLate(x(m.piece)) ? -5 : 5)}
                y={HEIGHT - EDGE.bottom - 8}
                textAnchor={isLate(x(m.piece)) ? "end" : "start"}
              >
                {m.words}
              </text>
            </g>
          ))}
        {shown.map((p) => (
          <circle key={p.piece} data-mark="piece" cx={x(p.piece)} cy={y(p.value)} r={4.5} />
        ))}
        {chart.signs
          .filter((s) => s.piece >= from)
          .map((s) => {
            const value = chart.values[chart.pieces.indexOf(s.piece)] ?? 0;
            return (
              <circle key={`${s.piece} ${s.words}`} data-mark="sign" cx={x(s.piece)} cy={y(value)} r={9} />
            );
          })}
      </Drawing>
      <figcaption>
        {many && (
          <Segments
            label="Which pieces"
            value={all ? "all" : "newest"}
            options={[
              { value: "newest", label: `newest ${NEWEST}` },
              { value: "all", label: `newest ${chart.pieces.length}` },
            ]}
            onChange={(v) => setAll(v === "all")}
          />
        )}
        <span>{belowOf(dimension)}</span>
      </figcaption>
    </Figure>
  );
}

/** Words that begin here would stand over the right edge. */
const isLate = (px: number) => px > WIDTH - EDGE.right - 120;

/** The line of a stretch at a piece within it. */
function at(s: { first: number; last: number; begins: number; ends: number }, piece: number): number {
  return s.last === s.first
    ? s.ends
    : s.begins + ((s.ends - s.begins) * (piece - s.first)) / (s.last - s.first);
}

function belowOf({ chart, told }: RunningDimension): string {
  const sign = chart.signs.at(-1);
  const found = [told];
  if (chart.limit_sure !== null && chart.limit_in !== null)
    found.push(
      `The limit to work to is ${chart.limit_in} pieces away, ${chart.limit_sure} for sure${
        chart.limit_when && `, made by ${chart.limit_when}`
      }.`,
    );
  if (sign) found.push(`Piece ${sign.piece}: ${sign.words}.`);
  return found.join(" ");
}
