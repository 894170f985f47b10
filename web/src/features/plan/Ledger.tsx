import type { ReactNode } from "react";
import styled from "styled-components";
import type { Fact, Plan, PlanTable, Settled, Stop } from "../../api/client";
import { reach } from "../../shared/ui/reach";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import type { Action } from "./acting";
import { CompareTable } from "./CompareTable";
import { CutsTable } from "./CutsTable";
import type { Changes } from "./changes";
import { type FactActions, FactRow } from "./FactRow";
import type { Latest } from "./kept";
import { LineBar } from "./LineBar";
import { ListBar } from "./ListBar";
import type { Troubles } from "./useEditing";

const Section = styled.section`
  padding: ${space(2.5)} ${space(4)} ${space(5)};
  h2 {
    margin-bottom: ${space(1)};
    font-size: ${type.title};
    font-weight: 600;
  }
`;

const Columns = styled.div`
  columns: 20.5rem;
  column-gap: ${space(6)};
  &[data-lines] {
    columns: 1;
  }
`;

const Tabs = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(4)};
  margin: ${space(2)} 0 ${space(1)};
  button {
    padding: ${space(1)} 0;
    background: none;
    border: 0;
    border-bottom: ${size.thick} solid transparent;
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
    cursor: pointer;
    ${reach}
  }
  button[aria-pressed="true"] {
    color: ${colour("ink")};
    border-bottom-color: ${colour("ink")};
    font-weight: 600;
  }
  @media ${fold.tablet} {
    row-gap: ${space(4.5)};
    margin-top: ${space(3)};
  }
`;

const Tables = styled.div`
  &[aria-busy] {
    opacity: 0.5;
  }
`;

type Props = FactActions & {
  stop: Stop;
  tables: Latest<PlanTable[]>;
  changes: Changes;
  lit: string | null;
  troubles: Troubles;
  onList: (action: Action) => Promise<Plan | null>;
  revision: number;
  /** The heading in view, where the setter picked one. */
  picked: string | null;
  onPick: (group: string) => void;
  /** What settling found of the cuts, where it is looked at. */
  settled?: Settled | null;
  /** What is done with the facts in view, before them. */
  lead?: ReactNode;
  /** What else belongs to this stop, above its tables. */
  children?: ReactNode;
};

/** The heading in view: the one picked, else one with an entry that is not kept, else the first. */
export function groupInView(stop: Stop, picked: string | null, troubles: Troubles): string | undefined {
  const troubled = stop.facts.find((f) => f.group && f.path !== null && f.path in troubles)?.group;
  const known = stop.headings.some((h) => h.key === picked);
  return picked !== null && known ? picked : troubled || stop.headings[0]?.key;
}

/** The facts of a stop. Facts that belong to one cut are shown a cut at a time. */
export function Ledger(props: Props) {
  const {
    stop,
    tables,
    changes,
    lit,
    troubles,
    onList,
    revision,
    picked,
    onPick,
    settled = null,
    lead,
    children,
    ...actions
  } = props;
  const group = groupInView(stop, picked, troubles);
  const list = stop.lists.find((l) => l.lines !== null && l.path === group);

  const row = (fact: Fact) => (
    <FactRow
      key={fact.name}
      fact={fact}
      was={changes.get(`fact:${stop.key}:${fact.name}`)}
      lit={lit === fact.name}
      trouble={(fact.path !== null && troubles[fact.path]) || null}
      {...actions}
    />
  );
  return (
    <Section aria-label={`Facts of ${stop.title}`} data-ledger>
      <h2>{stop.heading}</h2>
      <Columns>{stop.facts.filter((f) => !f.group).map(row)}</Columns>
      {stop.headings.length > 0 && (
        <>
          {stop.panels.includes("operations") ? (
            <CutsTable {...{ stop, group, onPick, changes, troubles, settled, ...actions }} />
          ) : (
            <Tabs role="group" aria-label="Facts in view">
              {stop.headings.map((h) => (
                <button
                  key={h.key}
                  type="button"
                  aria-pressed={h.key === group}
                  onClick={() => {
                    onPick(h.key);
                    actions.onLight(stop.facts.find((f) => f.group === h.key)?.name ?? null);
                  }}
                >
                  {h.title}
                </button>
              ))}
            </Tabs>
          )}
          {lead}
          <Columns data-lines={list?.lines != null || undefined}>
            {stop.facts.filter((f) => f.group === group).map(row)}
          </Columns>
        </>
      )}
      {stop.headings.length === 0 && lead}
      {list?.lines != null && (
        <LineBar
          key={list.path}
          list={list}
          trouble={troubles[list.path] ?? null}
          onAdd={async (line) =>
            (await onList({ kind: "add", path: list.path, name: line, itemKind: null })) !== null
          }
          onRemove={(id) => void onList({ kind: "remove", path: `${list.path}.${id}`, base: revision })}
          {...actions}
        />
      )}
      {stop.lists
        .filter((l) => l.lines === null)
        .map((l) => (
          <ListBar
            key={l.path}
            list={l}
            inView={l.items.find((item) => item.id === group)?.id}
            onAdd={async (name, itemKind) => {
              const plan = await onList({ kind: "add", path: l.path, name, itemKind });
              const page = plan?.parts.find((part) => part.name === `stop:${stop.key}`)?.stop;
              const made = page?.lists.find((x) => x.path === l.path)?.items.at(-1);
              if (made) onPick(made.id);
              return plan !== null;
            }}
            onRemove={(id) => void onList({ kind: "remove", path: `${l.path}.${id}`, base: revision })}
          />
        ))}
      {children}
      <Tables aria-busy={tables.isLate || undefined}>
        {(tables.content ?? [])
          .filter((t) => t.group === "" || t.group === group)
          .map((t) => (
            <CompareTable
              key={t.name}
              table={t}
              onTake={
                tables.isLate
                  ? undefined
                  : (path, value) =>
                      t.name === "balance"
                        ? void onList({ kind: "across", path, base: revision })
                        : actions.onKeep(path, { value })
              }
            />
          ))}
      </Tables>
    </Section>
  );
}
