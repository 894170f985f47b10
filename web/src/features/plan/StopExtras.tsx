import { Link } from "react-router";
import type { Plan, Side, Stop } from "../../api/client";
import { DrawingPanel } from "./DrawingPanel";
import { ProgramBlock } from "./ProgramBlock";
import type { Action } from "./queries";
import { SolvedTable } from "./SolvedTable";

type Shown = { plan: Plan; stop: Stop; side: Side | undefined };

type BelowProps = Shown & {
  /** The draft as it is; null while an earlier state is looked at. */
  revision: number | null;
  onTake: (action: Action) => Promise<boolean>;
};

/** What a stop has below its facts: a drawing to read, or a question that is solved by itself. */
export function BelowLedger({ plan, stop, side, revision, onTake }: BelowProps) {
  const runId = plan.run.id;
  const asked =
    stop.name === "hold" && side?.scenes.some((s) => s.name === "wall")
      ? "contact"
      : stop.name === "force" && side?.chart
        ? "limit-analysis"
        : null;
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
