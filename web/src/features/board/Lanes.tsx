import { memo } from "react";
import styled from "styled-components";
import type { Board, BoardRun } from "../../api/client";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { RunBlock } from "./RunBlock";
import { placeOf } from "./scale";

const Frame = styled.div`
  display: grid;
  grid-template-columns: 7.5rem minmax(0, 1fr);
  border-top: ${size.line} solid ${colour("ink")};
  /* There the list below is the board. */
  @media ${fold.phone} {
    display: none;
  }
`;

const Name = styled.div`
  align-self: center;
  font-weight: 600;
  p {
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
`;

const Lane = styled.div`
  position: relative;
  height: 58px;
  border-bottom: ${size.line} solid ${colour("hairline")};
  background: ${colour("sheet")};
  overflow: hidden;
`;

const Head = styled(Lane)`
  height: 44px;
  span {
    position: absolute;
    padding: ${space(1)};
    font: 400 ${type.small}/1.15 ${face.narrow};
    color: ${colour("soft")};
    border-left: ${size.line} solid ${colour("hairline")};
    height: 100%;
  }
`;

const Open = styled.i`
  position: absolute;
  inset: 0 auto;
  background: ${colour("card")};
  /* Without people: drawn as what is not all there. */
  &[data-alone] {
    background: repeating-linear-gradient(
      135deg,
      ${colour("card")} 0 3px,
      ${colour("hairline")} 3px 4px
    );
  }
`;

const Line = styled.i`
  position: absolute;
  inset: 0 auto;
  width: 0;
  border-left: ${size.line} solid ${colour("hairline")};
  &[data-now] {
    border-left: ${size.thick} solid ${colour("act")};
  }
`;

/** What stands behind the runs of every machine: working hours, days, now. */
const Ground = memo(function Ground({ board }: { board: Board }) {
  const place = placeOf(board);
  return (
    <>
      {board.hours.map((h) => (
        <Open
          key={h.begins}
          data-alone={h.people ? undefined : true}
          style={{ left: `${place(h.begins)}%`, width: `${place(h.ends) - place(h.begins)}%` }}
        />
      ))}
      {board.days.map((d) => (
        <Line key={d.date} style={{ left: `${place(d.begins)}%` }} />
      ))}
      <Line data-now style={{ left: `${place(board.now)}%` }} />
    </>
  );
});

type Props = {
  board: Board;
  onMove: (run: BoardRun, begins: number) => void;
  onHeld: (words: string) => void;
};

/** Machines below each other, their days to one scale, their runs as they follow. */
export function Lanes({ board, onMove, onHeld }: Props) {
  const place = placeOf(board);
  return (
    <Frame>
      <span />
      <Head>
        {board.days.map((d) => {
          const [weekday, ...rest] = d.said.split(" ");
          return (
            <span key={d.date} style={{ left: `${place(d.begins)}%` }}>
              {weekday}
              <br />
              {rest.join(" ")}
            </span>
          );
        })}
      </Head>
      {board.machines.map((machine) => (
        <Row key={machine.name} board={board} machine={machine} onMove={onMove} onHeld={onHeld} />
      ))}
    </Frame>
  );
}

function Row({ board, machine, onMove, onHeld }: Props & { machine: Board["machines"][number] }) {
  return (
    <>
      <Name>
        {machine.name}
        {machine.later > 0 && <p>{machine.later} later</p>}
      </Name>
      <Lane role="group" aria-label={machine.name}>
        <Ground board={board} />
        {machine.runs.map((run) => (
          <RunBlock
            key={run.id}
            run={run}
            board={board}
            onMove={(begins) => onMove(run, begins)}
            onHeld={onHeld}
          />
        ))}
      </Lane>
    </>
  );
}
