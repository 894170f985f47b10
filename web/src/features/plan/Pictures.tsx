import styled from "styled-components";
import type { Picture } from "../../api/client";
import { colour, face, size, space, type } from "../../shared/ui/theme";

const Bars = styled.figure`
  margin: ${space(3)} 0 0;
  figcaption {
    margin-bottom: ${space(1)};
    font: 400 ${type.label} ${face.narrow};
    b {
      font-weight: 600;
    }
  }
`;

const Lane = styled.div`
  display: grid;
  grid-template-columns: 7rem minmax(0, 1fr) 9rem;
  gap: ${space(2)};
  align-items: center;
  min-height: 24px;
  font: 400 ${type.small} ${face.narrow};
  > span:last-child {
    color: ${colour("soft")};
    font-variant-numeric: tabular-nums;
  }
  &[data-shared] {
    font-weight: 600;
  }
`;

const Track = styled.div`
  position: relative;
  height: 14px;
  border-left: ${size.line} solid ${colour("hairline")};
  border-right: ${size.line} solid ${colour("hairline")};
  i {
    position: absolute;
    top: 2px;
    bottom: 2px;
    background: ${colour("soft")};
    opacity: 0.55;
  }
  &[data-shared] i {
    background: ${colour("act")};
    opacity: 1;
  }
  &[data-clash] i {
    background: none;
    border: ${size.line} dashed ${colour("stop")};
    opacity: 1;
  }
  b {
    position: absolute;
    top: -5px;
    bottom: -5px;
    border-left: ${size.thick} solid ${colour("ink")};
  }
`;

/** The feeds that the schools allow as bars over one scale, what they share, and the plan's own feed. */
export function FeedBars({ picture }: { picture: Picture }) {
  const ends = picture.ranges.flatMap((r) => [r.low, r.high]).filter((v): v is number => v !== null);
  const most = 1.12 * Math.max(...ends, picture.at ?? 0);
  const share = (v: number) => `${((100 * v) / most).toFixed(2)}%`;
  return (
    <Bars>
      <figcaption>
        <b>{picture.title}</b>, {picture.unit}. {picture.words}{" "}
        {picture.at !== null && `The plan feeds ${picture.at_text}.`}
      </figcaption>
      {picture.ranges.map((r, i) => {
        const shared = i === picture.ranges.length - 1;
        const clash = r.low !== null && r.high !== null && r.low > r.high;
        const [low, high] = clash ? [r.high ?? 0, r.low ?? 0] : [r.low ?? 0, r.high ?? most];
        return (
          <Lane key={r.label} data-shared={shared || undefined}>
            <span>{r.label}</span>
            <Track data-shared={shared || undefined} data-clash={clash || undefined} aria-hidden>
              <i style={{ left: share(low), right: `calc(100% - ${share(high)})` }} />
              {picture.at !== null && <b style={{ left: share(picture.at) }} />}
            </Track>
            <span>{r.text}</span>
          </Lane>
        );
      })}
    </Bars>
  );
}

const Split = styled.div`
  display: grid;
  grid-template-columns: minmax(180px, 45%) minmax(0, 1fr);
  gap: ${space(4)};
  height: 100%;
  padding: ${space(3)} ${space(4)};
  overflow: auto;
  svg {
    width: 100%;
    height: 100%;
    max-height: 300px;
    min-height: 120px;
  }
  .insert {
    fill: ${colour("steel")};
    stroke: ${colour("ink")};
  }
  .hole {
    fill: ${colour("card")};
    stroke: ${colour("ink")};
  }
  .cutting {
    stroke: ${colour("point")};
    fill: none;
  }
`;

const Letters = styled.dl`
  display: grid;
  grid-template-columns: auto auto minmax(0, 1fr);
  gap: ${space(1)} ${space(3)};
  align-content: start;
  margin: 0;
  line-height: 1.25;
  dt {
    font-weight: 600;
  }
  dd {
    margin: 0;
  }
  dd:nth-of-type(2n + 1) {
    color: ${colour("soft")};
    font-family: ${face.narrow};
  }
`;

/** An insert from above with every letter of its designation explained. The outline is the server's, in mm. */
export function InsertDrawing({ picture }: { picture: Picture }) {
  const xs = picture.outline.map((p) => p[0] ?? 0);
  const ys = picture.outline.map((p) => p[1] ?? 0);
  const [left, right, low, high] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const margin = 0.08 * Math.max(right - left, high - low);
  const stroke = (right - left) / 140;
  const at = (p: readonly number[]) => `${p[0]},${-(p[1] ?? 0)}`;
  const tip = picture.outline.filter((p) => (p[0] ?? 0) > right - 0.12 * (right - left));
  return (
    <Split>
      <svg
        viewBox={`${left - margin} ${-high - margin} ${right - left + 2 * margin} ${high - low + 2 * margin}`}
        role="img"
        aria-label={picture.words}
      >
        <polygon className="insert" points={picture.outline.map(at).join(" ")} strokeWidth={stroke} />
        {picture.hole > 0 && <circle className="hole" r={picture.hole / 2} strokeWidth={stroke} />}
        {tip.length > 2 && picture.outline.length > tip.length && (
          <polyline
            className="cutting"
            points={[...tip]
              .sort((a, b) => (a[1] ?? 0) - (b[1] ?? 0))
              .map(at)
              .join(" ")}
            strokeWidth={3 * stroke}
          />
        )}
      </svg>
      <Letters aria-label={`What ${picture.title} says`}>
        {picture.letters.map((l) => [
          <dt key={`${l.name} symbol`}>{l.symbol}</dt>,
          <dd key={`${l.name} name`}>{l.name}</dd>,
          <dd key={`${l.name} meaning`}>{l.meaning}</dd>,
        ])}
      </Letters>
    </Split>
  );
}
