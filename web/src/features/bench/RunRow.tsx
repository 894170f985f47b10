import { Link } from "react-router";
import styled from "styled-components";
import type { BenchRow } from "../../api/client";
import { ActionMenu, type MenuGroup } from "../../shared/ui/ActionMenu";
import { Mark } from "../../shared/ui/Mark";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";

const Row = styled.li`
  position: relative;
  display: grid;
  grid-template-columns: ${size.mark} minmax(180px, 1fr) minmax(0, 2.4fr) auto;
  gap: ${space(1)} ${space(4)};
  padding: ${space(4)} ${space(3)};
  background: ${colour("card")};
  border: ${size.line} solid ${colour("hairline")};
  border-bottom-width: 0;
  &:last-child {
    border-bottom-width: ${size.line};
  }
  /* The whole row leads to the plan; what stands on it keeps its own clicks. */
  a {
    color: ${colour("ink")};
    text-decoration: none;
    font-size: ${type.run};
    font-weight: 600;
    overflow-wrap: anywhere;
  }
  a::after {
    content: "";
    position: absolute;
    inset: 0;
  }
  &:hover a {
    color: ${colour("act")};
  }
  > :last-child {
    position: relative;
    align-self: start;
  }
  @media ${fold.phone} {
    grid-template-columns: ${size.mark} minmax(0, 1fr) auto;
    > div {
      grid-column: 2 / -1;
      grid-row: 2;
    }
  }
`;

export const Soft = styled.span`
  display: block;
  font: 400 ${type.label}/1.3 ${face.narrow};
  color: ${colour("soft")};
`;

const Needs = styled.p`
  margin-bottom: ${space(2)};
  overflow-wrap: anywhere;
  &[data-state="stopped"] {
    color: ${colour("stop")};
  }
`;

const Lines = styled.dl`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: ${space(1)} ${space(4)};
  font: 400 ${type.label}/1.3 ${face.narrow};
  dt {
    display: inline;
    color: ${colour("soft")};
    margin-right: ${space(1)};
  }
  dd {
    display: inline;
    overflow-wrap: anywhere;
  }
`;

export type RunAction = "copy" | "rename" | "save" | "put away" | "delete";

type Props = { run: BenchRow; mayEdit: boolean; onAction: (action: RunAction, run: BenchRow) => void };

/** A run on the bench: how it stands, what it needs next, and what can be done with it. */
export function RunRow({ run, mayEdit, onAction }: Props) {
  const act = (action: RunAction, label: string) => ({
    id: action,
    label,
    onAction: () => onAction(action, run),
  });
  const groups: MenuGroup[] = [
    {
      actions: [
        act("copy", "Copy"),
        ...(run.put_away ? [] : [act("rename", "Rename")]),
        act("save", "Save as a file"),
      ],
    },
    {
      title: "Off the bench",
      actions: [
        act("put away", run.put_away ? "Bring back to the bench" : "Put away"),
        ...(run.released ? [] : [act("delete", "Delete …")]),
      ],
    },
  ];
  // What comes next has told its stop's line already.
  const lines = run.lines.filter((l) => l.key !== run.next);
  const twoSides = run.lines.some((l) => l.side === 1);
  return (
    <Row>
      <Mark state={run.verdict} />
      <span>
        <Link to={`/runs/${run.id}`}>{run.name}</Link>
        <Soft>
          {run.drawing_number} · {run.verdict}
        </Soft>
        <Soft>
          {run.quantity ?? "?"} pieces · {run.machine || "no machine"}
        </Soft>
        <Soft>
          {run.setup} · {run.units === "inch" ? "an inch plan" : "metric"}
        </Soft>
      </span>
      <div>
        <Needs data-state={run.verdict}>
          {run.needs ? `Next: ${run.needs}` : "Nothing is open; look it over before it is set."}
        </Needs>
        <Lines>
          {lines.map((l) => (
            <div key={l.key}>
              <dt>{twoSides && l.side != null ? `${l.title} ${l.side + 1}` : l.title}</dt>
              <dd>{l.line}</dd>
            </div>
          ))}
        </Lines>
      </div>
      {mayEdit ? <ActionMenu label="more" hint={`more to do with ${run.name}`} groups={groups} /> : <span />}
    </Row>
  );
}
