import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useRef } from "react";
import type { Picture } from "../../api/client";
import { Axes, edgesOf } from "../../drawing/Axes";
import { ChartPicture } from "../../drawing/ChartPicture";
import { Frame } from "../../drawing/frame";
import { place } from "../../drawing/place";
import { axesTaken, besideSpots } from "../../drawing/texts";
import { textHeight, textWidth } from "../../drawing/textWidth";
import { textScale, useSize } from "../../drawing/useSize";
import { thousands } from "../../shared/words";

/** Room for the figures around the curves, at usual text size. */
const ROOM = { top: 34, right: 70, bottom: 40, left: 66 };
const KEY = "broken: spindle · full: surface speed";
type Point = readonly number[];

/** Surface speed and rpm on the way across; the mark is where the spindle tops out. All points are the server's. */
export function AcrossCurves({ picture }: { picture: Picture }) {
  const frame = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(frame);
  const big = textScale();
  const edge = edgesOf(ROOM, big);
  const [rpm, speed] = picture.lines;
  if (!rpm || !speed) return null;
  const xs = rpm.points.map((p) => p[0] ?? 0);
  const top = (points: readonly Point[]) => 1.1 * Math.max(1, ...points.map((p) => p[1] ?? 0));
  const base = Math.max(edge.top + 1, height - edge.bottom);
  const right = Math.max(edge.left + 1, width - edge.right);
  const x = scaleLinear([Math.min(...xs), Math.max(...xs)], [edge.left, right]);
  const y = scaleLinear([0, top(rpm.points)], [base, edge.top]);
  const other = scaleLinear([0, top(speed.points)], [base, edge.top]);
  const path = (scale: typeof y) =>
    line<Point>(
      (p) => x(p[0] ?? 0),
      (p) => scale(p[1] ?? 0),
    );
  const axes = { x, y, edge, width, big, unit: "rpm", words: `diameter, ${picture.unit}` };
  const high = textHeight();
  const beyond = { x: right + 1, y: 0, width: Math.max(0, width - right), height };
  const keyAt = (top: number) => {
    const wide = textWidth(KEY, "narrow");
    return [right - 8 - wide, edge.left + 8].map((left) => ({ x: left, y: top, width: wide, height: high }));
  };
  const mark = picture.mark === null ? null : x(picture.mark);
  const marked = mark === null ? [] : besideSpots(picture.mark_text, { x: mark, y: edge.top + 4 });
  const [markBox, keyBox] = place(
    [{ spots: marked }, { spots: [base - 10 - high, base - 14 - 2 * high, edge.top].flatMap(keyAt) }],
    { width, height },
    [...axesTaken(axes), beyond],
  );
  return (
    <Frame ref={frame}>
      {width > 0 && (
        <ChartPicture role="img" aria-label={`${picture.title}. ${picture.words}`}>
          <Axes {...axes} />
          {other.ticks(5).map((t) => (
            <text key={t} x={right + 8} y={other(t) + 5}>
              {thousands(t)}
            </text>
          ))}
          <text x={right + 8} y={edge.top - 14}>
            {speed.unit}
          </text>
          <path className="demand" d={path(y)(rpm.points) ?? ""} />
          <path className="grip" d={path(other)(speed.points) ?? ""} />
          {mark !== null && <line className="cap-line" x1={mark} x2={mark} y1={edge.top - 8} y2={base} />}
          {markBox && (
            <text className="cap" x={markBox.x} y={markBox.y + 0.76 * high}>
              {picture.mark_text}
            </text>
          )}
          {keyBox && (
            <text className="strong" x={keyBox.x} y={keyBox.y + 0.76 * high}>
              {KEY}
            </text>
          )}
        </ChartPicture>
      )}
    </Frame>
  );
}
