import { type ReactNode, useCallback, useEffect, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { type BoardRun, fieldErrors, said } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { cardsOnPhone } from "../../shared/ui/cards";
import { AppHeader, Blank, Told } from "../../shared/ui/Page";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { Lanes } from "./Lanes";
import { type Moving, useBoard, useMoveRun } from "./queries";
import { daysOn } from "./scale";

const Main = styled.main`
  display: grid;
  gap: ${space(4)};
  padding: ${space(5)} ${space(4.5)} ${space(12)};
  h2 {
    font-size: ${type.title};
    font-weight: 600;
  }
`;

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(2)} ${space(3)};
  align-items: center;
  > a:first-of-type {
    margin-left: auto;
  }
  @media ${fold.phone} {
    > a:first-of-type {
      margin-left: 0;
    }
  }
`;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th {
    text-align: left;
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  td,
  th {
    padding: ${space(1.5)} ${space(3)} ${space(1.5)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  td[data-slips] {
    color: ${colour("caution")};
  }
  small {
    color: ${colour("soft")};
    font: 400 ${type.label} ${face.narrow};
  }
  ${cardsOnPhone}
`;

/** On a phone there are no lanes to drag on. */
const Hint = styled(Told)`
  @media ${fold.phone} {
    display: none;
  }
`;

const WEEK = 7;

/** Machines and days: which run is on which machine when, moved by hand or by keys. */
export function BoardScreen({ tools }: { tools: ReactNode }) {
  const [first, setFirst] = useState<string | undefined>(undefined);
  const [held, setHeld] = useState("");
  const [undo, setUndo] = useState<{ id: number; begins: number | null } | null>(null);
  const board = useBoard(first);
  const move = useMoveRun(first);
  useEffect(() => {
    document.title = "Board · Noble Anvil";
  }, []);
  const { mutate } = move;
  const go = useCallback(
    (moving: Moving, before: number | null) =>
      mutate(moving, { onSuccess: () => setUndo({ id: moving.id, begins: before }) }),
    [mutate],
  );
  const onMove = useCallback(
    (run: BoardRun, begins: number) => go({ id: run.id, revision: run.revision, begins }, run.start),
    [go],
  );
  if (board.isError)
    return (
      <Blank>
        <p>{said(board.error)}</p>
        <Button onPress={() => board.refetch()}>Try again</Button>
      </Blank>
    );
  if (!board.data) return <Blank>Opening the board …</Blank>;
  const { data } = board;
  const shown = data.machines.flatMap((machine) => machine.runs.map((run) => ({ run, machine })));
  const day = data.days[0]?.date ?? "";
  const refused = move.error ? (fieldErrors(move.error).start ?? said(move.error)) : "";
  const revisionOf = (id: number) =>
    [...shown.map((s) => s.run), ...data.waiting].find((one) => one.id === id)?.revision;
  const putBack = () => {
    const revision = undo ? revisionOf(undo.id) : undefined;
    if (undo && revision !== undefined) mutate({ ...undo, revision }, { onSuccess: () => setUndo(null) });
  };
  return (
    <>
      <AppHeader title="Board" tools={tools} />
      <Main>
        <Bar>
          <Button onPress={() => setFirst(daysOn(day, -WEEK))}>Week before</Button>
          <Button onPress={() => setFirst(undefined)}>Today</Button>
          <Button onPress={() => setFirst(daysOn(day, WEEK))}>Week after</Button>
          <span>By the shop’s clock, {data.zone}</span>
          <Link to="/rules">When the shop works</Link>
          <a href="/api/board.ics" download>
            Save as a calendar file
          </a>
        </Bar>
        <Told role={refused ? "alert" : "status"}>
          {held || refused || (move.data?.told ?? "")}{" "}
          {!held && !refused && undo && data.may_edit && <Button onPress={putBack}>Put back</Button>}
        </Told>
        <Lanes board={data} onMove={onMove} onHeld={setHeld} />
        {data.may_edit && shown.length > 0 && (
          <Hint>
            Drag a run along its days. By keys: the arrows move it an hour, with Shift a day, Enter keeps it,
            Escape puts it back.
          </Hint>
        )}
        <h2>In order</h2>
        {shown.length === 0 ? (
          <p>No run is on the board in these days. Put one on it below, or look at another week.</p>
        ) : (
          <Table>
            <thead>
              <tr>
                <th>machine</th>
                <th>run</th>
                <th>set-up begins</th>
                <th>finished</th>
                <th>slips, or how it goes</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {shown.map(({ run, machine }) => (
                <tr key={run.id}>
                  <td data-head="machine">{machine.name}</td>
                  <td data-head="run">
                    <Link to={`/runs/${run.id}/route`}>
                      {run.drawing_number} {run.name}
                    </Link>
                  </td>
                  <td data-head="set-up begins">{run.begins_said}</td>
                  <td data-head="finished">{run.done_said}</td>
                  <td data-head="slips, or how it goes" data-slips>
                    {run.slips}
                    {run.goes && <small>{run.goes}</small>}
                  </td>
                  <td>
                    {data.may_edit && run.moves && (
                      <Button
                        onPress={() => go({ id: run.id, revision: run.revision, begins: null }, run.start)}
                      >
                        Take off
                      </Button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        )}
        <h2>Not on the board</h2>
        {data.waiting.length === 0 ? (
          <p>Every run that has a machine is on the board.</p>
        ) : (
          <Table>
            <tbody>
              {data.waiting.map((run) => {
                const free = data.machines.find((m) => m.name === run.machine)?.free ?? null;
                return (
                  <tr key={run.id}>
                    <td data-head="machine">{run.machine}</td>
                    <td data-head="run">
                      <Link to={`/runs/${run.id}/route`}>
                        {run.drawing_number} {run.name}
                      </Link>
                    </td>
                    <td>{run.why}</td>
                    <td>
                      {data.may_edit && !run.why && free !== null && (
                        <Button
                          onPress={() => go({ id: run.id, revision: run.revision, begins: free }, null)}
                        >
                          Put behind the others
                        </Button>
                      )}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </Table>
        )}
      </Main>
    </>
  );
}
