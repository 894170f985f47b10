import { Link } from "react-router";
import styled from "styled-components";
import type { Plan, Units } from "../../api/client";
import { reach } from "../../shared/ui/reach";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { moment } from "../../shared/words";
import { useAtMachine } from "./machineQueries";

const Strip = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 ${space(4)};
  padding: ${space(1)} ${space(4.5)};
  border-bottom: ${size.line} solid ${colour("hairline")};
  background: ${colour("card")};
  font: 400 ${type.label}/1.5 ${face.narrow};
  box-shadow: inset 6px 0 0 ${colour("act")};
  &[data-level="stop"] {
    box-shadow: inset 6px 0 0 ${colour("stop")};
  }
  a {
    margin-left: auto;
    ${reach}
  }
`;

const WATCHED = ["setting", "proving"];

/** How far the setter is with what was released, and what was read last: watched while it happens. */
export function AtMachine({ plan, units }: { plan: Plan; units: Units }) {
  const release = plan.at === null && WATCHED.includes(plan.run.place) ? plan.release : null;
  const { data: done } = useAtMachine(plan.run.id, release?.number ?? null, units);
  if (!release || !done) return null;
  const ticked = done.marks.filter((m) => m.state !== "open");
  const lastTick = ticked.at(-1);
  const lastRead = done.readings.at(-1);
  return (
    <Strip role="status" aria-label="At the machine" data-level={lastRead?.follows.told.level}>
      <span>
        <b>At the machine</b>, release {release.number}: {done.place}, {ticked.length} of {done.steps} steps
      </span>
      {lastTick && (
        <span>
          last ticked: {lastTick.title}, {lastTick.by}, {moment(lastTick.at)}
        </span>
      )}
      {lastRead && (
        <span>
          last read: {lastRead.title}, {lastRead.shown}
          {lastRead.follows.told.level === "stop" && ": it says to stop"}
        </span>
      )}
      <Link to={`/runs/${plan.run.id}/card`}>watch its card</Link>
      {done.place === "running" && <Link to={`/runs/${plan.run.id}/running`}>watch it run</Link>}
    </Strip>
  );
}
