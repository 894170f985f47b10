import styled from "styled-components";
import type { RunningEdge, RunningPage } from "../../api/client";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { Hand } from "./hand";

const Three = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1.05fr) minmax(15rem, 0.9fr);
  border-bottom: ${size.line} solid ${colour("ink")};
  > div {
    display: grid;
    gap: ${space(1)};
    align-content: start;
    padding: ${space(3)} ${space(5)};
    border-right: ${size.line} solid ${colour("hairline")};
  }
  > div:first-child {
    background: ${colour("card")};
  }
  > div:last-child {
    gap: ${space(2)};
    border-right: 0;
  }
  h2 {
    font: 400 ${type.run} ${face.narrow};
    color: ${colour("soft")};
  }
  strong {
    font-size: 4.75rem;
    font-weight: 600;
    line-height: 1;
    font-variant-numeric: tabular-nums;
    white-space: nowrap;
  }
  [data-now] {
    color: ${colour("caution")};
  }
  [data-stopped] {
    color: ${colour("stop")};
  }
  p {
    font-size: ${type.run};
    line-height: 1.3;
  }
  .soft {
    font: 400 ${type.label}/1.3 ${face.narrow};
    color: ${colour("soft")};
  }
  .two {
    display: grid;
    grid-template-columns: 1fr 1.35fr;
    gap: ${space(2)};
    button {
      padding: ${space(2)};
      white-space: nowrap;
    }
  }
  @media ${fold.phone} {
    grid-template-columns: 1fr 1fr;
    > div {
      padding: ${space(3)} ${space(4)};
    }
    > div:last-child {
      grid-column: 1 / -1;
      border-top: ${size.line} solid ${colour("hairline")};
    }
  }
`;

const Bar = styled.div`
  height: 14px;
  border: ${size.line} solid ${colour("ink")};
  > i {
    display: block;
    height: 100%;
    background: ${colour("ink")};
  }
`;

type Props = {
  page: RunningPage;
  /** Pieces that wait on this tablet. */
  waiting: number;
  /** What the big button says; null while nothing is to be pressed. */
  press: string | null;
  /** What it says then. */
  still: string;
  onPress: () => void;
  onScrap: () => void;
  onStop: () => void;
  /** A fresh edge of a tool, since it was due. */
  onFresh: (key: string) => void;
  onGoOn: () => void;
};

const inWords = (left: number) => (left <= 0 ? "now" : `in ${left}`);

/** What an operator sees first: the next check, the next edge, and whether it goes on. */
export function ThreeThings({
  page,
  waiting,
  press,
  still,
  onPress,
  onScrap,
  onStop,
  onFresh,
  onGoOn,
}: Props) {
  const { check, edges, stops } = page.standing;
  const due = check === null ? null : Math.max(0, check.pieces - waiting);
  const edge = edges.find((e) => e.left !== null);
  return (
    <Three aria-label="Now">
      <div>
        <h2>Next check</h2>
        {due === null ? (
          <p>
            {page.head.left === 0
              ? "All good pieces are made."
              : "Nothing of this lot has limits: there is nothing to measure."}
          </p>
        ) : (
          <>
            <strong data-now={due === 0 || undefined}>{inWords(due)}</strong>
            <p>
              {due > 0 && (due === 1 ? "piece · " : "pieces · ")}
              {check?.names}
            </p>
            <p className="soft">{check?.why}</p>
          </>
        )}
      </div>
      <div>
        {edge ? (
          <NextEdge edge={edge} waiting={waiting} mayMark={page.may_mark} onFresh={onFresh} />
        ) : (
          <h2>No edge’s life is known</h2>
        )}
      </div>
      <div>
        {page.still ? (
          <>
            <p data-stopped>It stands still: {page.still.why}</p>
            <Hand data-main onClick={onGoOn} disabled={!page.may_mark}>
              It goes on
            </Hand>
          </>
        ) : (
          <>
            <Hand data-main onClick={onPress} disabled={press === null}>
              {press ?? still}
            </Hand>
            <div className="two">
              <Hand onClick={onScrap} disabled={!page.may_mark}>
                Scrap
              </Hand>
              <Hand data-stop onClick={onStop} disabled={!page.may_mark}>
                It stopped
              </Hand>
            </div>
          </>
        )}
        {stops.length === 0 ? (
          <p className="soft">{page.head.pace}</p>
        ) : (
          <p data-stopped role="alert">
            Stop. {stops[0]}
            {stops.length > 1 && ` And ${stops.length - 1} more: see Edges.`}
          </p>
        )}
      </div>
    </Three>
  );
}

function NextEdge({
  edge,
  waiting,
  mayMark,
  onFresh,
}: {
  edge: RunningEdge;
  waiting: number;
  mayMark: boolean;
  onFresh: (key: string) => void;
}) {
  const left = Math.max(0, (edge.left ?? 0) - waiting);
  return (
    <>
      <h2>
        Next edge · tool {edge.station}, {edge.name}
      </h2>
      <strong data-now={left === 0 || undefined}>{inWords(left)}</strong>
      <Bar aria-hidden>
        <i style={{ width: `${(edge.share ?? 0) * 100}%` }} />
      </Bar>
      <p className="soft">{edge.told}</p>
      {left === 0 && (
        <Hand disabled={!mayMark} onClick={() => onFresh(edge.key)}>
          Fresh edge is in, tool {edge.station}
        </Hand>
      )}
    </>
  );
}
