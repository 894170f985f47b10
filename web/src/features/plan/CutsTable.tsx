import styled from "styled-components";
import type { Fact, Settled, Stop } from "../../api/client";
import { QuantityField } from "../../shared/quantity/QuantityField";
import { cardsOnPhone } from "../../shared/ui/cards";
import { Told } from "../../shared/ui/Page";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import type { Changes } from "./changes";
import { type FactActions, nextField, TroubleLine } from "./FactRow";
import type { Troubles } from "./useEditing";

const Scroll = styled.div`
  overflow-x: auto;
  margin: ${space(1)} 0;
`;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-family: ${face.narrow};
  th,
  td {
    padding: ${space(0.5)} ${space(1)};
    border-bottom: ${size.line} solid ${colour("hairline")};
    text-align: right;
    vertical-align: baseline;
    font-variant-numeric: tabular-nums;
    white-space: nowrap;
  }
  thead th {
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  th[scope="row"],
  th:first-child,
  td[data-words],
  th[data-words] {
    text-align: left;
    font-weight: 400;
    white-space: normal;
  }
  th[scope="row"] {
    min-width: 6rem;
    vertical-align: top;
  }
  td[data-words] {
    max-width: 9rem;
    font-size: ${type.small};
    line-height: 1.2;
  }
  tr[data-chosen] > * {
    background: ${colour("card")};
  }
  tr[data-chosen] > th {
    box-shadow: inset 3px 0 0 ${colour("act")};
  }
  td[data-moved] {
    color: ${colour("pointInk")};
  }
  input {
    width: 3.1rem;
    font-size: ${type.label};
  }
  /* The entry, and what belongs to it, on one line. */
  td > div {
    display: inline-block;
    vertical-align: baseline;
  }
  /* Before and after, in the same cell. */
  ins,
  small {
    display: block;
    text-decoration: none;
    font-size: ${type.small};
    color: ${colour("pointInk")};
  }
  td[data-words] > small {
    color: ${colour("soft")};
  }
  [data-proposed] input {
    border-bottom-style: dotted;
  }
  @media ${fold.tablet} {
    input,
    button {
      min-width: ${size.touch};
      min-height: ${size.touch};
    }
  }
  ${cardsOnPhone}
  @media ${fold.phone} {
    tbody tr {
      display: grid;
      grid-template-columns: repeat(3, minmax(0, 1fr));
      gap: ${space(1)} ${space(2)};
    }
    tbody th,
    tbody td {
      text-align: left;
      white-space: normal;
    }
    tbody th,
    td[data-words],
    td[colspan] {
      grid-column: 1 / -1;
      max-width: none;
    }
    td[data-head]::before {
      display: block;
    }
  }
`;

const Name = styled.button`
  padding: ${space(0.5)} ${space(1)};
  background: none;
  border: 0;
  font: 400 ${type.label}/1.2 ${face.narrow};
  color: ${colour("ink")};
  text-align: left;
  cursor: pointer;
  &[aria-pressed="true"] {
    font-weight: 600;
  }
`;

const Wrong = styled.td`
  && {
    white-space: normal;
    text-align: left;
    color: ${colour("stop")};
  }
`;

type Settling = Settled["cuts"][number];

type Props = FactActions & {
  stop: Stop;
  group: string | undefined;
  onPick: (group: string) => void;
  changes: Changes;
  troubles: Troubles;
  /** What settling found, laid beside what is planned. */
  settled: Settled | null;
};

/** The figures that stand in a column each, by the last part of their fact's name. */
const FIGURES = ["speed_m_min", "feed_mm_rev", "depth_mm", "clamp_rpm"] as const;
type Figure = (typeof FIGURES)[number];
const HEADS: Record<Figure, string> = {
  speed_m_min: "",
  feed_mm_rev: "feed",
  depth_mm: "deep × passes",
  clamp_rpm: "clamp",
};

function named(stop: Stop) {
  const facts = new Map(stop.facts.map((f) => [f.name, f]));
  return (id: string, name: string) => facts.get(`cut_${id}_${name}`);
}

/** How fast it turns: at its start, and at the most where that is another. */
function turning(here: Fact | undefined, top: Fact | undefined): string {
  if (!here?.text) return "—";
  return top?.text && top.text !== here.text ? `${here.text}–${top.text}` : here.text;
}

const short = (limit: string) => limit.replace(/^the /, "");

/** What holds a settled cut back, else the limit that a planned one is nearest to. */
function heldBack(cut: Settling | undefined, near: Fact | undefined) {
  if (!cut) return near?.text ?? "—";
  const without = cut.without === null ? "" : ` (${cut.without.toFixed(2)} without)`;
  return `${short(cut.binds) || "nothing tried"}${without}`;
}

/** How deep in how many passes a settled cut goes, where that is not as it is planned. */
function deep(cut: Settling | undefined, depth: Fact | undefined, passes: Fact | undefined) {
  if (!cut || (cut.would.depth_mm === (depth?.text ?? "") && cut.would.count === passes?.text))
    return undefined;
  return cut.would.depth_mm ? `${cut.would.depth_mm} × ${cut.would.count}` : `× ${cut.would.count}`;
}

/** All cuts of a side in one table, in the order of the work: every figure is edited in place. */
export function CutsTable({ stop, group, onPick, changes, troubles, settled, ...actions }: Props) {
  const of = named(stop);
  const first = stop.headings[0]?.key ?? "";
  const unit = (name: string) =>
    stop.headings.map((h) => of(h.key, name)?.unit).find((u) => u !== undefined && u !== "") ?? "";
  const found = new Map(settled?.cuts.map((c) => [c.id, c]));

  function cell(head: string, title: string, fact: Fact | undefined, would: string | undefined, after = "") {
    const was = fact && changes.get(`fact:${stop.key}:${fact.name}`);
    const path = fact?.editable ? fact.path : null;
    const trouble = path !== null && path !== undefined ? troubles[path] : undefined;
    const moves = would !== undefined && would !== "" && would !== fact?.text;
    return (
      <td
        data-head={head}
        data-moved={was !== undefined || undefined}
        data-proposed={fact?.proposed || undefined}
        title={fact?.proposed ? "proposed: touch it, or say that its side looks right" : undefined}
      >
        {fact && path ? (
          <QuantityField
            label={`${title}: ${fact.label}${fact.unit ? `, ${fact.unit}` : ""}`}
            shown={fact.text}
            exact={fact.edit_text}
            isInvalid={trouble !== undefined}
            waiting={trouble && "text" in trouble.entry ? trouble.entry.text : undefined}
            onType={(text) => actions.onType(path, text)}
            onKeep={(text) => actions.onKeep(path, { text })}
            onCancel={() => actions.onCancel(path)}
            onNext={() => nextField(document.activeElement)}
            onFocus={() => actions.onLight(fact.name)}
          />
        ) : (
          fact?.text || "—"
        )}
        {after}
        {was !== undefined && <small>was {was || "empty"}</small>}
        {moves && <ins>→ {would}</ins>}
      </td>
    );
  }

  function row({ key, title }: { key: string; title: string }) {
    const cut = found.get(key);
    const minutes = of(key, "minutes");
    const passes = of(key, "passes");
    const paths = stop.facts.filter((f) => f.group === key).map((f) => f.path);
    const wrong = key !== group && Object.values(troubles).find((t) => paths.includes(t.path));
    return [
      <tr key={key} data-chosen={key === group || undefined}>
        <th scope="row">
          <Name
            type="button"
            aria-pressed={key === group}
            onClick={() => {
              onPick(key);
              actions.onLight(stop.facts.find((f) => f.group === key)?.name ?? null);
            }}
          >
            {title}
          </Name>
        </th>
        <td data-words data-head="tool">
          {of(key, "tool")?.text ?? "no tool"}
        </td>
        {cell(unit("speed_m_min"), title, of(key, "speed_m_min"), cut?.would.speed_m_min)}
        <td data-head="rpm">{turning(of(key, "rpm_here"), of(key, "top"))}</td>
        {cell(HEADS.feed_mm_rev, title, of(key, "feed_mm_rev"), cut?.would.feed_mm_rev)}
        {cell(
          HEADS.depth_mm,
          title,
          of(key, "depth_mm"),
          deep(cut, of(key, "depth_mm"), passes),
          passes?.text ? ` × ${passes.text}` : "",
        )}
        {cell(HEADS.clamp_rpm, title, of(key, "clamp_rpm"), cut?.would.clamp_rpm)}
        <td data-head="min">
          {minutes?.text || "—"}
          {cut && cut.after !== cut.before && <ins>→ {cut.after.toFixed(2)}</ins>}
        </td>
        <td data-words data-head={settled ? "held back by" : "nearest limit"}>
          {heldBack(cut, of(key, "near"))}
          {cut?.then && <small>then {short(cut.then)}</small>}
          {cut && cut.gives_up.length > 0 && <small>gives up: {cut.gives_up.join(", ")}</small>}
        </td>
      </tr>,
      wrong && (
        <tr key={`${key} wrong`}>
          <Wrong colSpan={9} role="alert">
            <TroubleLine trouble={wrong} {...actions} />
          </Wrong>
        </tr>
      ),
    ];
  }

  return (
    <Scroll role="group" aria-label="Facts in view">
      <Table aria-label="All cuts of this side" data-cuts={first}>
        <thead>
          <tr>
            <th scope="col">cut</th>
            <th scope="col" data-words>
              tool
            </th>
            {FIGURES.slice(0, 1).map((f) => (
              <th key={f} scope="col">
                {unit(f)}
              </th>
            ))}
            <th scope="col">rpm</th>
            {FIGURES.slice(1).map((f) => (
              <th key={f} scope="col">
                {HEADS[f]}
              </th>
            ))}
            <th scope="col">min</th>
            <th scope="col" data-words>
              {settled ? "held back by" : "nearest limit"}
            </th>
          </tr>
        </thead>
        <tbody>{stop.headings.map(row)}</tbody>
      </Table>
      {stop.facts.some((f) => f.proposed) && (
        <Told>Dotted: proposed, until somebody touches it or says that its side looks right.</Told>
      )}
    </Scroll>
  );
}
