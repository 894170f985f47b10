import { useEffect, useRef, useState } from "react";
import type { Plan } from "../../api/client";

/** Name of a figure -> what it was before. */
export type Changes = ReadonlyMap<string, string>;

const NOTHING: Changes = new Map();
/** How long the marks of a kept edit stay. */
const SHOWN_MS = 8000;

function figures(plan: Plan): Map<string, string> {
  const found = new Map<string, string>();
  for (const stop of plan.stops) {
    for (const fact of stop.facts) found.set(`fact:${stop.key}:${fact.name}`, fact.text);
    for (const answer of stop.answers) found.set(`answer:${stop.key}:${answer.name}`, answer.number);
    found.set(`stop:${stop.key}`, stop.line);
  }
  for (const side of plan.sides)
    for (const { name, text } of side.carry) found.set(`carry:${side.id}:${name}`, text ?? "");
  return found;
}

/** What moved between two plans in the same units. */
export function changesBetween(before: Plan, after: Plan): Changes {
  if (before === after || before.units !== after.units || before.run.id !== after.run.id) return NOTHING;
  const was = figures(before);
  const moved = new Map<string, string>();
  for (const [name, text] of figures(after)) {
    const old = was.get(name);
    if (old !== undefined && old !== text) moved.set(name, old);
  }
  return moved;
}

/** What moved since the last edit: during typing against the kept plan, and for a moment after keeping. */
export function useChanges(kept: Plan | undefined, shown: Plan | undefined): Changes {
  const [before, setBefore] = useState(kept);
  const last = useRef(kept);
  useEffect(() => {
    const previous = last.current;
    last.current = kept;
    const comparable = previous && kept && previous.units === kept.units && previous.run.id === kept.run.id;
    if (!comparable || previous.revision === kept.revision) {
      setBefore(kept);
      return;
    }
    setBefore(previous);
    const timer = setTimeout(() => setBefore(kept), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [kept]);
  return before && shown ? changesBetween(before, shown) : NOTHING;
}
