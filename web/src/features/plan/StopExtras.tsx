import { Link } from "react-router";
import type { Plan, Side, Stop } from "../../api/client";
import { DrawingPanel } from "./DrawingPanel";
import { Operations } from "./Operations";
import { FeedBars } from "./Pictures";
import { ProgramBlock } from "./ProgramBlock";
import { ProvenPanel } from "./ProvenPanel";
import type { Action, EntryValue } from "./queries";
import { SolvedTable } from "./SolvedTable";
import { ToolsPanel } from "./ToolsPanel";

type Shown = { plan: Plan; stop: Stop; side: Side | undefined };

type BelowProps = Shown & {
  /** The draft as it is; null while an earlier state is looked at. */
  revision: number | null;
  /** The heading in view. */
  group: string | undefined;
  /** Who sees what worked may keep it. */
  mayKeep: boolean;
  onTake: (action: Action) => Promise<boolean>;
  onKeep: (path: string, entry: EntryValue) => void;
};

/** The cut in view: its side, its place, its name and the list that it is in; null where no cut is. */
function cutInView({ plan, side, revision, group }: BelowProps) {
  const list = plan.stops
    .find((s) => s.name === "cuts" && s.setup === side?.index)
    ?.lists.find((l) => l.lines === null);
  if (!side || !list || plan.at !== null || revision === null) return null;
  const cut = list.items.indexOf(group ?? "");
  const of = { runId: plan.run.id, units: plan.units, side: side.index, revision, cut };
  return { of, list, name: list.items[cut] };
}

/** What is done with whole operations, before their facts. */
export function AboveLedger(props: BelowProps) {
  const found = cutInView(props);
  if (props.stop.name !== "cuts" || !found) return null;
  return <Operations key={found.list.path} {...found.of} list={found.list} onDo={props.onTake} />;
}

/** What the stops Tools and Cuts have for the cut in view. */
function OfCut(props: BelowProps) {
  const { plan, stop, group, mayKeep, onTake, onKeep } = props;
  const found = cutInView(props);
  const bars = stop.pictures.find((p) => p.kind === "bars" && p.group === group);
  return (
    <>
      {bars && <FeedBars picture={bars} />}
      {stop.name === "tools" && found?.name !== undefined && (
        <ToolsPanel
          key={found.name}
          {...found.of}
          name={found.name}
          mayTake={plan.may_edit}
          onTake={(path, value) => onKeep(path, { value })}
        />
      )}
      {stop.name === "cuts" && found?.name !== undefined && (
        <ProvenPanel
          key={found.name}
          {...found.of}
          name={found.name}
          mayTake={plan.may_edit}
          mayKeep={mayKeep}
          onDo={onTake}
        />
      )}
    </>
  );
}

/** What a stop has below its facts: a drawing to read, or a question that is solved by itself. */
export function BelowLedger(props: BelowProps) {
  const { plan, stop, side, revision, onTake } = props;
  const runId = plan.run.id;
  const asked =
    stop.name === "hold" && side?.scenes.some((s) => s.name === "wall")
      ? "contact"
      : stop.name === "force" && side?.chart
        ? "limit-analysis"
        : null;
  if (stop.name === "tools" || stop.name === "cuts") return <OfCut {...props} />;
  return (
    <>
      {stop.name === "part" && (
        <DrawingPanel
          runId={runId}
          units={plan.units}
          mayEdit={plan.may_edit && revision !== null}
          revision={plan.revision}
          onTake={onTake}
        />
      )}
      {/* Who sees releases alone is not sent what is solved for a draft. */}
      {asked && side && revision !== null && plan.at === null && (
        <SolvedTable
          key={asked}
          check={asked}
          runId={runId}
          index={side.index}
          units={plan.units}
          revision={revision}
        />
      )}
    </>
  );
}

/** What a stop has below its answers: the jaw program, or the way to what was measured. */
export function InSlip({ plan, stop, side }: Shown) {
  if (!side) return null;
  if (stop.name === "jaws")
    return <ProgramBlock runId={plan.run.id} side={side} units={plan.units} plan={plan} />;
  const chuck = plan.stops
    .find((s) => s.name === "hold" && s.setup === side.index)
    ?.facts.find((f) => f.name === "chuck")?.value;
  if (stop.name !== "force" || typeof chuck !== "string") return null;
  return (
    <p>
      <Link to={`/chucks/${chuck}/gauge`}>Measured grip and greasing of this chuck</Link>
    </p>
  );
}
