import { useEffect } from "react";
import { useLocation } from "react-router";
import type { Plan, Stop } from "../../api/client";
import type { LocalHit } from "../../shared/find/LocalHits";

const cache = new WeakMap<Plan, readonly LocalHit[]>();
const NOTHING: readonly LocalHit[] = [];

/** A stop's title, with its side where a plan has two. */
export function titleOf(plan: Plan, stop: Stop): string {
  return stop.side === null || plan.sides.length < 2 ? stop.title : `${stop.title}, side ${stop.side + 1}`;
}

/** What the find box can jump to in a plan: its stops, its facts, its history. */
export function hitsOf(plan: Plan | undefined): readonly LocalHit[] {
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
  const facts = plan.stops.flatMap((s) =>
    s.facts.map((f) => ({
      key: `fact ${s.key} ${f.name}`,
      title: f.group ? `${s.headings.find((h) => h.key === f.group)?.title ?? f.group}: ${f.label}` : f.label,
      detail: `${[f.text || "empty", f.unit].join(" ").trim()} · ${titleOf(plan, s)}`,
      to: `${base}/${s.key}#${encodeURIComponent(f.name)}`,
    })),
  );
  const history = {
    key: "history",
    title: "History",
    detail: `draft ${plan.revision}`,
    to: `${base}/history`,
  };
  const hits = [...stops, ...facts, history];
  cache.set(plan, hits);
  return hits;
}

/** The fact named in the address, brought into view and focused, once it is there. */
export function useFocusedFact(stop: Stop | undefined): void {
  const { hash, key } = useLocation();
  const name = decodeURIComponent(hash.slice(1));
  const isHere = stop?.facts.some((f) => f.name === name) ?? false;
  // biome-ignore lint/correctness/useExhaustiveDependencies: `key` tells one jump from the next
  useEffect(() => {
    if (!isHere) return;
    // After a sheet that is closing has given its focus back.
    const timer = setTimeout(() => {
      const row = document.querySelector(`[data-fact="${CSS.escape(name)}"]`);
      if (!row) return;
      row.scrollIntoView({ block: "center" });
      row.querySelector<HTMLElement>("input, button")?.focus();
    }, 60);
    return () => clearTimeout(timer);
  }, [isHere, name, key]);
}
