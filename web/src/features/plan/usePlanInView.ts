import { useEffect, useRef, useState } from "react";
import type { Answer, Offer, Plan, Stop, StopLine, Units } from "../../api/client";
import { useInView } from "../../shared/ui/useInView";
import { useChanges } from "./changes";
import { type Latest, latest, partOf, type Shown, shownOf, stopOf } from "./kept";
import { groupInView } from "./Ledger";
import { type Moment, usePlan, usePlanAt } from "./queries";
import { useEditing } from "./useEditing";
import { useLateParts } from "./useLateParts";

type Asked = {
  runId: number;
  /** The stop in the address. */
  key: string | undefined;
  units: Units;
  /** An earlier state that is looked at. */
  at: Moment | null;
  person: string;
  /** The answer whose working is open, by its name or as the first of its stop, and the heading that was picked. */
  working: string | null;
  picked: string | null;
};

/** The stop of an address: one that is gone leads to the first of its name, none to the first of all. */
function lineOf(plan: Plan | undefined, key: string | undefined): StopLine | undefined {
  return (
    plan?.stops.find((s) => s.key === key) ??
    plan?.stops.find((s) => s.name === key?.split("-")[0]) ??
    plan?.stops[0]
  );
}

/** The first answer of a stop, by a name that also holds before its page is there. */
export function firstOf(line: StopLine): string {
  return `first of ${line.key}`;
}

/** The answer whose working is open. */
function answerOf(stop: Stop | undefined, working: string | null): Answer | undefined {
  if (!stop || working === null) return undefined;
  return working === firstOf(stop) ? stop.answers[0] : stop.answers.find((a) => a.name === working);
}

/** The picture in view: which are offered, the one that is chosen, and the part that holds it. */
function pictureOf(stop: Stop | undefined, group: string | undefined, wanted: string, setup: string) {
  const offers: readonly Offer[] = stop?.offers.filter((o) => o.group === "" || o.group === group) ?? [];
  const chosen = offers.find((o) => o.name === wanted) ?? offers[0];
  return { offers, chosen, part: chosen && stop && partOf(chosen, stop, setup) };
}

/**
 * The stop in view. While its page as it counts now is not here, the one on the screen stays, marked late: what is
 * being typed or put in there is not lost.
 */
function useStop(state: Shown | undefined, line: StopLine | undefined, of: string) {
  const [last, setLast] = useState<{ of: string; page: Stop }>();
  const page = state && stopOf(state, line);
  const here = of + (line?.key ?? "");
  if (page && (last?.of !== here || last.page.facts !== page.facts)) setLast({ of: here, page });
  const stop = page ?? (line && last?.of === here ? { ...last.page, ...line } : undefined);
  return { stop, isLate: page === undefined };
}

/**
 * What is in view of a plan: the plan that counts now with what is typed over it, its open stop in full, and its parts,
 * asked for as they come into view.
 */
export function usePlanInView({ runId, key, units, at, person, working, picked }: Asked) {
  const [views, setViews] = useState<Readonly<Record<string, string>>>({});
  const [lastSide, setLastSide] = useState<{ index: number; id: string }>({ index: 0, id: "" });
  const looked = useRef({ stop: key ?? "", picture: "", setup: "" });
  const query = usePlan(runId, units, () => looked.current);
  const past = usePlanAt(runId, units, at);
  const kept = query.data?.plan.run.id === runId ? query.data : undefined;
  const look = {
    stop: lineOf(kept?.plan, key)?.key ?? key ?? "",
    picture: views[key?.split("-")[0] ?? ""] ?? "",
    setup: lastSide.id,
  };
  useEffect(() => {
    looked.current = look;
  });
  const editing = useEditing(runId, units, kept, person, look);
  const isNow = at === null;
  const draft = isNow ? editing.draft : null;
  const state: Shown | undefined = isNow ? kept && shownOf(kept, draft) : past.data;
  const changes = useChanges(isNow ? kept : undefined, draft);
  const line = lineOf(state?.plan, key);
  if (line?.side != null && line.setup !== null && line.side !== lastSide.index)
    setLastSide({ index: line.side, id: line.setup });
  const side = state?.plan.sides[lastSide.index] ?? state?.plan.sides[0];
  const { stop, isLate } = useStop(state, line, JSON.stringify([runId, units, at]));
  const group = stop && groupInView(stop, picked, editing.troubles);
  const picture = pictureOf(stop, group, views[line?.name ?? ""] ?? "", side?.id ?? "");
  const below = useRef<HTMLDivElement>(null);
  const isBelow = useInView(below, stop?.key ?? "");
  const named = (what: string) => `${what}:${line?.key ?? ""}`;
  const answer = answerOf(stop, working);
  const opened = answer && `${named("working")}:${answer.name}`;
  // A stop that came into view without an answer of its own is asked for like any other part.
  const names = (stop && !isLate ? [picture.part, named("helps"), opened] : [line && named("stop")]).filter(
    (n) => n !== undefined,
  );
  useLateParts({
    runId,
    units,
    kept: isNow ? kept : undefined,
    draft,
    names: isBelow && stop && !isLate ? [...names, named("tables"), named("pictures")] : names,
    lay: editing.lay,
  });

  const last = isNow ? kept : undefined;
  const none: Latest<never> = { content: undefined, isLate: false };
  return {
    query,
    past,
    kept,
    editing,
    draft,
    shown: state?.plan,
    changes,
    line,
    stop,
    isLate,
    side,
    sideIndex: lastSide.index,
    group,
    picture: { ...picture, part: picture.part === undefined ? undefined : state?.parts.get(picture.part) },
    choose: (name: string) => line && setViews((all) => ({ ...all, [line.name]: name })),
    /** Where what lies below the facts begins. */
    below,
    answer,
    steps: state?.parts.get(opened ?? "")?.steps ?? undefined,
    helps: state ? latest(state, last, named("helps"), (p) => p.helps) : none,
    tables: state ? latest(state, last, named("tables"), (p) => p.tables) : none,
    pictures: state ? latest(state, last, named("pictures"), (p) => p.pictures) : none,
  };
}
