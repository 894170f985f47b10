import { scaleLinear } from "d3-scale";
import { useRef } from "react";
import styled from "styled-components";
import type { Picture } from "../../api/client";
import { Across, edgesOf } from "../../drawing/Axes";
import { Frame, Picture as Svg } from "../../drawing/frame";
import { Leader } from "../../drawing/Leader";
import { type Box, place } from "../../drawing/place";
import { textHeight, textWidth } from "../../drawing/textWidth";
import { textScale, useSize } from "../../drawing/useSize";
import { colour } from "../../shared/ui/theme";

const ROOM = { top: 30, right: 24, bottom: 44, left: 72 };
const TALLEST = 52; // px, of a lane
const INSIDE = 6; // px, from a block's edge to its words
const ROWS = 4; // of words over and under a lane

const Drawing = styled(Svg)`
  rect {
    stroke: ${colour("ink")};
    stroke-width: 1;
  }
  [data-kind="cut"] {
    fill: ${colour("partFill")};
  }
  [data-kind="between"] {
    fill: ${colour("card")};
    stroke: ${colour("soft")};
  }
  [data-kind="handling"] {
    fill: ${colour("jawFill")};
  }
  [data-kind="waits"] {
    fill: none;
    stroke: ${colour("soft")};
    stroke-dasharray: 4 3;
  }
  [data-kind="together"] {
    fill: ${colour("ink")};
  }
  text {
    fill: ${colour("ink")};
  }
  text[data-on-ink] {
    fill: ${colour("card")};
  }
  .soft {
    fill: ${colour("soft")};
  }
  .leader {
    stroke: ${colour("soft")};
  }
  .ticks line {
    stroke: ${colour("hairline")};
    stroke-width: 0.75;
  }
  .ticks .domain {
    stroke: none;
  }
`;

/** What happens when in a cycle: a lane for each spindle, to one scale of seconds. All figures are the server's. */
export function LanesChart({ picture }: { picture: Picture }) {
  const spindles = picture.lanes ?? [];
  const frame = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(frame);
  const big = textScale();
  const edge = edgesOf(ROOM, big);
  const base = Math.max(edge.top + 1, height - edge.bottom);
  const right = Math.max(edge.left + 1, width - edge.right);
  const ends = spindles.flatMap((l) => l.blocks.map((b) => b.start + b.seconds));
  const x = scaleLinear([0, Math.max(1, ...ends)], [edge.left, right]);
  const share = (base - edge.top) / Math.max(1, spindles.length);
  const tall = Math.min(TALLEST, share * 0.4);
  const high = textHeight();
  const blocks = spindles.flatMap((lane, i) => {
    const y = edge.top + share * (i + 0.5) - tall / 2;
    return lane.blocks
      .filter((b) => b.seconds > 0)
      .map((b) => ({
        ...b,
        name: `${i} ${b.kind} ${b.start}`,
        x: x(b.start),
        y,
        width: x(b.start + b.seconds) - x(b.start),
      }));
  });
  const spotsOf = (b: (typeof blocks)[number]): Box[] => {
    const wide = textWidth(b.label, "narrow");
    const box = (left: number, top: number): Box => ({ x: left, y: top, width: wide, height: high });
    if (wide + 2 * INSIDE <= b.width) return [box(b.x + INSIDE, b.y + (tall - high) / 2)];
    const rows = Array.from({ length: ROWS }, (_, k) => k + 0.5);
    const tops = rows.flatMap((k) => [b.y - (k + 0.7) * high, b.y + tall + (k - 0.3) * high]);
    return tops.flatMap((top) =>
      [b.x + (b.width - wide) / 2, b.x, b.x + b.width - wide].map((l) => box(l, top)),
    );
  };
  const named = blocks.filter((b) => b.label !== "");
  const lanes = blocks.map((b): Box => ({ x: b.x, y: b.y, width: b.width, height: tall }));
  const isInside = (b: (typeof blocks)[number]) => textWidth(b.label, "narrow") + 2 * INSIDE <= b.width;
  const [inside, outside] = [named.filter(isInside), named.filter((b) => !isInside(b))];
  const placed = [
    ...place(
      inside.map((b) => ({ spots: spotsOf(b) })),
      { width, height },
    ),
    ...place(
      outside.map((b) => ({ spots: spotsOf(b) })),
      { width, height: base },
      lanes,
    ),
  ];
  return (
    <Frame ref={frame}>
      {width > 0 && (
        <Drawing role="img" aria-label={`${picture.title}. ${picture.words}`}>
          <Across x={x} base={base} top={edge.top} width={width} big={big} />
          <text className="soft" x={right} y={base + 35 * big} textAnchor="end">
            seconds
          </text>
          {spindles.map((lane, i) => (
            <text key={lane.label} x={edge.left - 10} y={edge.top + share * (i + 0.5) + 5} textAnchor="end">
              {lane.label}
            </text>
          ))}
          {blocks.map((b) => (
            <rect key={b.name} data-kind={b.kind} x={b.x} y={b.y} width={b.width} height={tall}>
              <title>{`${b.label || "between"}: ${b.text}`}</title>
            </rect>
          ))}
          {[...inside, ...outside].map((b, i) => {
            const box = placed[i];
            if (!box) return null;
            const middle = { x: b.x + b.width / 2, y: box.y < b.y ? b.y : b.y + tall };
            return (
              <g key={b.name}>
                {i >= inside.length && <Leader box={box} point={middle} />}
                <text
                  data-on-ink={(i < inside.length && b.kind === "together") || undefined}
                  x={box.x}
                  y={box.y + 0.76 * high}
                >
                  {b.label}
                </text>
              </g>
            );
          })}
        </Drawing>
      )}
    </Frame>
  );
}
