import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { BenchRow } from "../../api/client";
import { ActionMenu, type MenuGroup } from "../../shared/ui/ActionMenu";
import { TextButton } from "../../shared/ui/Button";
import { Mark } from "../../shared/ui/Mark";
import { hidden } from "../../shared/ui/Page";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { counted, moment } from "../../shared/words";

/** Columns of a run, and of the heading over all: how it stands, which it is, what comes next, figures, what to do. */
const columns = `${size.mark} minmax(190px, 1fr) minmax(220px, 1.5fr) minmax(400px, 1.5fr) auto`;
/** Columns of the figures of a side, after its number. */
const figureColumns = "1rem repeat(5, minmax(0, 1fr))";

const Row = styled.li`
  position: relative;
  display: grid;
  grid-template-columns: ${columns};
  gap: ${space(1)} ${space(4)};
  padding: ${space(2.5)} ${space(3)};
  background: ${colour("card")};
  border: ${size.line} solid ${colour("hairline")};
  border-bottom-width: 0;
  &:last-child {
    border-bottom-width: ${size.line};
  }
  > svg {
    align-self: center;
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
  @media ${fold.tablet} {
    grid-template-columns: ${size.mark} minmax(0, 1fr) minmax(0, 1.4fr) auto;
    > [data-figures] {
      grid-column: 2 / -2;
      grid-row: 2;
    }
  }
  @media ${fold.phone} {
    grid-template-columns: ${size.mark} minmax(0, 1fr) auto;
    > p {
      grid-column: 2 / -1;
      grid-row: 2;
    }
    > [data-figures] {
      grid-column: 2 / -1;
      grid-row: 3;
    }
  }
`;

const Heading = styled.div`
  display: grid;
  grid-template-columns: ${columns};
  gap: ${space(4)};
  padding: 0 ${space(3)} ${space(1)};
  font: 400 ${type.small} ${face.narrow};
  color: ${colour("soft")};
  > div {
    display: grid;
    grid-template-columns: ${figureColumns};
    gap: ${space(2)};
    grid-column: 4;
    text-align: right;
  }
  > span {
    width: 8.25rem;
    grid-column: 5;
  }
  @media ${fold.tablet} {
    display: none;
  }
`;

export const Soft = styled.span`
  display: block;
  font: 400 ${type.label}/1.3 ${face.narrow};
  color: ${colour("soft")};
`;

const Needs = styled.p`
  align-self: center;
  overflow-wrap: anywhere;
  line-height: 1.3;
  &[data-state="stopped"] {
    color: ${colour("stop")};
  }
  &[data-cut] {
    display: -webkit-box;
    overflow: hidden;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
  }
`;

const Figures = styled.dl`
  display: grid;
  grid-template-columns: ${figureColumns};
  gap: 0 ${space(2)};
  font: 400 ${type.body}/1.4 ${face.narrow};
  text-align: right;
  white-space: nowrap;
  > b {
    font-weight: 400;
    color: ${colour("soft")};
    text-align: left;
  }
  dt {
    ${hidden}
  }
  /* Without the heading over them each says what it is. */
  @media ${fold.tablet} {
    display: flex;
    flex-wrap: wrap;
    gap: 0 ${space(4)};
    text-align: left;
    dt {
      position: static;
      display: inline;
      width: auto;
      height: auto;
      margin: 0 ${space(1)} 0 0;
      clip-path: none;
      color: ${colour("soft")};
    }
    dd {
      display: inline;
    }
  }
`;

const Actions = styled.div`
  position: relative;
  display: flex;
  gap: ${space(3)};
  align-items: center;
  align-self: start;
  justify-content: flex-end;
  min-width: 8.25rem;
  @media ${fold.phone} {
    min-width: 0;
  }
`;

const Lines = styled.dl`
  display: grid;
  grid-column: 2 / -1;
  grid-template-columns: repeat(auto-fit, minmax(250px, 1fr));
  gap: ${space(1)} ${space(4)};
  padding: ${space(2)} 0;
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

const FIGURES = [
  ["pressure", "Gauge"],
  ["clamp", "Top clamp"],
  ["bore", "Jaw bore Ø"],
  ["depth", "Deep"],
  ["minutes", "In cut"],
] as const;

/** What stands over the figures of all runs. */
export function RunHeading() {
  return (
    <Heading aria-hidden="true">
      <div>
        <i />
        {FIGURES.map(([name, label]) => (
          <span key={name}>{label}</span>
        ))}
      </div>
      <span />
    </Heading>
  );
}

export type RunAction = "copy" | "rename" | "save" | "put away" | "delete";

type Props = { run: BenchRow; mayEdit: boolean; onAction: (action: RunAction, run: BenchRow) => void };

/** A run on the bench in one line: how it stands, what it needs next, five figures; its stops once opened. */
export function RunRow({ run, mayEdit, onAction }: Props) {
  const [open, setOpen] = useState(false);
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
          {run.drawing_number} · {run.quantity == null ? "no quantity" : counted(run.quantity, "piece")} ·{" "}
          {run.machine || "no machine"}
        </Soft>
      </span>
      <Needs data-state={run.verdict} data-cut={!open || undefined}>
        {run.verdict[0]?.toUpperCase()}
        {run.verdict.slice(1)}
        {run.needs
          ? `. Next: ${run.needs}`
          : run.released
            ? ", and released"
            : ". Next: release it for the machine."}
        {run.placed_at && (
          <Soft>
            <Link to={`/runs/${run.id}/${run.place === "running" ? "running" : "card"}`}>
              {run.place} since {moment(run.placed_at)}, {run.placed_by}
            </Link>
          </Soft>
        )}
      </Needs>
      <div data-figures="">
        {run.figures.map((of, side) => (
          <Figures key={side} aria-label={twoSides ? `Figures of side ${side + 1}` : "Figures"}>
            <b aria-hidden="true">{twoSides ? side + 1 : ""}</b>
            {FIGURES.map(([name, label]) => (
              <div key={name}>
                <dt>{label}</dt>
                <dd>{of[name] || "–"}</dd>
              </div>
            ))}
          </Figures>
        ))}
      </div>
      <Actions>
        <TextButton
          aria-expanded={open}
          aria-label={`${open ? "fewer" : "all"} details of ${run.name}`}
          onPress={() => setOpen(!open)}
        >
          {open ? "fewer" : "details"}
        </TextButton>
        {mayEdit && <ActionMenu label="more" hint={`more to do with ${run.name}`} groups={groups} />}
      </Actions>
      {open && (
        <Lines>
          <div>
            <dt>Set-ups</dt>
            <dd>
              {run.setup} · {run.units === "inch" ? "an inch plan" : "metric"}
            </dd>
          </div>
          {lines.map((l) => (
            <div key={l.key}>
              <dt>{twoSides && l.side != null ? `${l.title} ${l.side + 1}` : l.title}</dt>
              <dd>{l.line}</dd>
            </div>
          ))}
        </Lines>
      )}
    </Row>
  );
}
