import { Link } from "react-router";
import type { Picture, Plan, Side, Stop } from "../../api/client";
import type { Action } from "./acting";
import { DrawingPanel } from "./DrawingPanel";
import { Gains } from "./Gains";
import type { Latest } from "./kept";
import { LastTime } from "./LastTime";
import { type FoundSettled, Operations } from "./Operations";
import { OrderBand } from "./OrderBand";
import { FeedBars } from "./Pictures";
import { ProgramBlock } from "./ProgramBlock";
import { ProvenPanel } from "./ProvenPanel";
import type { EntryValue } from "./queries";
import { RouteSheets } from "./RouteSheets";
import { SetupTook } from "./SetupTook";
import { SolvedTable } from "./SolvedTable";
import { Start } from "./Start";
import { Staying } from "./Staying";
import { ToolsPanel } from "./ToolsPanel";
import type { Starting } from "./useStart";

type Shown = { plan: Plan; stop: Stop; side: Side | undefined };

type ExtrasProps = Shown & {
  pictures: Latest<Picture[]>;
  /** The draft as it is; null while an earlier state is looked at. */
  revision: number | null;
  /** The heading in view. */
  group: string | undefined;
  /** Who sees what worked may keep it. */
  mayKeep: boolean;
  start: Starting;
  settled: FoundSettled | null;
  onSettled: (found: FoundSettled | null) => void;
  onTake: (action: Action) => Promise<Plan | null>;
  onKeep: (path: string, entry: EntryValue) => void;
};

/** The side of the draft that a stop is of; null where nothing of it is asked for. */
function sideOf({ plan, stop, revision }: ExtrasProps) {
  // Who sees releases alone is not sent what is solved for a draft.
  if (stop.setup === null || plan.at !== null || revision === null) return null;
  return { runId: plan.run.id, units: plan.units, setup: stop.setup, revision, moment: plan.moment };
}

/** What is done with all of a stop, before its facts: set-ups proposed, and operations put in order. */
export function AboveLedger(props: ExtrasProps) {
  const { stop, group, settled, onSettled, onTake, start } = props;
  const of = sideOf(props);
  if (stop.panels.includes("start")) return <Start start={start} plan={props.plan} />;
  const list = stop.lists.find((l) => l.lines === null);
  if (!stop.panels.includes("operations") || !of || !list) return null;
  return (
    <Operations
      key={list.path}
      of={of}
      list={list}
      money={props.plan.rules?.money ?? false}
      cut={group}
      found={settled}
      onFound={onSettled}
      onDo={onTake}
    />
  );
}

/** What a stop has below its facts: pictures and panels of the heading in view, and what is solved by itself. */
export function BelowLedger(props: ExtrasProps) {
  const { plan, stop, pictures, group, revision, mayKeep, onTake, onKeep } = props;
  const of = sideOf(props);
  const lanes = pictures.content?.find((p) => p.kind === "lanes");
  const bars = pictures.content?.find((p) => p.kind === "bars" && p.group === group);
  const name = stop.headings.find((h) => h.key === group)?.title;
  const cut = of && group !== undefined && name !== undefined ? { of: { ...of, cut: group }, name } : null;
  return (
    <>
      {bars && <FeedBars picture={bars} />}
      {stop.panels.includes("tools") && cut && (
        <ToolsPanel
          key={cut.of.cut}
          {...cut}
          mayTake={plan.may_edit}
          onTake={(path, value) => onKeep(path, { value })}
        />
      )}
      {stop.panels.includes("proven") && cut && (
        <ProvenPanel key={cut.of.cut} {...cut} mayTake={plan.may_edit} mayKeep={mayKeep} onDo={onTake} />
      )}
      {stop.panels.includes("drawing") && (
        <DrawingPanel
          runId={plan.run.id}
          units={plan.units}
          mayEdit={plan.may_edit && revision !== null}
          revision={plan.revision}
          onTake={onTake}
        />
      )}
      {stop.panels.includes("drawing") && plan.at === null && revision !== null && (
        <LastTime
          runId={plan.run.id}
          units={plan.units}
          revision={plan.revision}
          onTake={plan.may_edit ? (path, value) => onKeep(path, { value }) : null}
        />
      )}
      {stop.panels.includes("order") && lanes && (
        <OrderBand
          picture={lanes}
          onMove={
            plan.at === null && revision !== null && plan.may_edit
              ? (path, behind) => void onTake({ kind: "move", path, behind, base: plan.revision })
              : null
          }
        />
      )}
      {stop.panels.includes("sheets") && plan.at === null && revision !== null && (
        <>
          <Staying
            runId={plan.run.id}
            revision={plan.revision}
            onTake={plan.may_edit ? (tools) => onKeep("route.stay", { value: tools }) : null}
          />
          <SetupTook runId={plan.run.id} revision={plan.revision} />
          <RouteSheets runId={plan.run.id} />
        </>
      )}
      {of && stop.checks.map((check) => <SolvedTable key={check} check={check} of={of} />)}
    </>
  );
}

/** Where a link of a stop leads. */
const WAYS: Record<string, (key: string) => string> = {
  gauge: (key) => `/chucks/${key}/gauge`,
  machine: (key) => `/shelf/machine/${key}`,
};

/** What a stop has below its answers: what would gain most, the jaw program, and ways to other places. */
export function InSlip(props: ExtrasProps) {
  const { plan, stop, side, onTake } = props;
  const of = sideOf(props);
  return (
    <>
      {of && stop.panels.includes("operations") && stop.headings.length > 0 && (
        <Gains key={stop.key} of={of} mayTake={plan.may_edit} onDo={onTake} />
      )}
      {side && stop.program && <ProgramBlock program={stop.program} side={side} plan={plan} />}
      {stop.links.map((link) => (
        <p key={link.key}>
          <Link to={WAYS[link.kind]?.(link.key) ?? "/"}>{link.words}</Link>
        </p>
      ))}
    </>
  );
}
