import { useEffect } from "react";
import { useLocation } from "react-router";
import type { Plan, Stop, StopLine } from "../../api/client";
import type { Offered } from "../../shared/find/LocalHits";

const cache = new WeakMap<Plan, Offered>();
const NOTHING: Offered = { hits: [], plan: null };

/** What a side is called in a few words: its own name up to a comma. */
export function shortName(side: Plan["sides"][number] | undefined): string {
  const name = side?.title.split(",")[0] ?? "";
  return name.startsWith("Side ") ? name.toLowerCase() : name;
}

/** A stop's title, with its side where a plan has two. */
export function titleOf(plan: Plan, stop: StopLine): string {
  const { side, title } = stop;
  return side === null || plan.sides.length < 2 ? title : `${title}, ${shortName(plan.sides[side])}`;
}

/** What the find box can jump to in a plan by itself: its stops and its history. Facts it asks the server for. */
export function hitsOf(plan: Plan | undefined): Offered {
  if (!plan) return NOTHING;
  const known = cache.get(plan);
  if (known) return known;
  const base = `/runs/${plan.run.id}`;
  const stops = plan.stops.map((s) => ({
    key: `stop ${s.key}`,
    title: titleOf(plan, s),
    detail: `stop · ${s.line}`,
    to: `${base}/${s.key}`,
  }));
  const history = {
    key: "history",
    title: "History",
    detail: `draft ${plan.revision}`,
    to: `${base}/history`,
  };
  const offered = { hits: [...stops, history], plan: { run: plan.run.id, units: plan.units } };
  cache.set(plan, offered);
  return offered;
}

/** The fact named in the address, by its name or its path, brought into view and focused, once it is there. */
export function useFocusedFact(stop: Stop | undefined): void {
  const { hash, key } = useLocation();
  const name = decodeURIComponent(hash.slice(1));
  const fact = stop?.facts.find((f) => f.name === name || f.path === name)?.name;
  // biome-ignore lint/correctness/useExhaustiveDependencies: `key` tells one jump from the next
  useEffect(() => {
    if (fact === undefined) return;
    // After a sheet that is closing has given its focus back.
    const timer = setTimeout(() => {
      const row = document.querySelector(`[data-fact="${CSS.escape(fact)}"]`);
      if (!row) return;
      row.scrollIntoView({ block: "center" });
      row.querySelector<HTMLElement>("input, button")?.focus();
    }, 60);
    return () => clearTimeout(timer);
  }, [fact, key]);
}
