import styled from "styled-components";
import type { CardFollows } from "../../api/client";
import { NoteBox } from "../../shared/ui/NoteBox";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";

const Box = styled.section`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: ${space(1)} ${space(6)};
  align-items: end;
  padding-top: ${space(3)};
  border-top: ${size.line} solid ${colour("hairline")};
  @media ${fold.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
  .label {
    font: 400 ${type.run} ${face.narrow};
    color: ${colour("soft")};
  }
  .answer {
    font-size: ${type.handAnswer};
    font-weight: 600;
    line-height: 1.1;
    font-variant-numeric: tabular-nums;
    small {
      font-size: ${type.hand};
      font-weight: 400;
    }
  }
  .words {
    display: grid;
    gap: ${space(1)};
    font-size: ${type.hand};
    line-height: 1.35;
  }
  .trial {
    grid-column: 1 / -1;
    font-size: ${type.run};
  }
`;

/** What follows from a reading: the answer in large figures, the words, and how the plan stands with it. */
export function Follows({ follows }: { follows: CardFollows }) {
  const { told, trial } = follows;
  return (
    <Box aria-label="What follows" aria-live="polite">
      <div>
        <p className="label">{told.label}</p>
        <p className="answer">
          {told.prefix}
          {told.number} <small>{told.unit}</small>
        </p>
      </div>
      <div className="words">
        {told.words.map((w) => (
          <p key={w}>{w}</p>
        ))}
      </div>
      {told.level === "stop" && (
        <div className="trial">
          <NoteBox level="stop">Do not go on with this.</NoteBox>
        </div>
      )}
      {trial && (
        <div className="trial">
          {trial.holds ? (
            <NoteBox level="info">Computed with it, the plan still holds.</NoteBox>
          ) : (
            <NoteBox level="stop">{trial.why.join(" ")}</NoteBox>
          )}
        </div>
      )}
    </Box>
  );
}
