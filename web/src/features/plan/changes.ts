import { useEffect, useMemo, useState } from "react";
import { type Draft, type Kept, SHOWN_MS } from "./kept";

/** Name of a figure -> what it was before. */
export type Changes = ReadonlyMap<string, string>;

const NOTHING: Changes = new Map();

/** What moved, as the server tells it: during typing against the kept plan, and for a moment after keeping. */
export function useChanges(kept: Kept | undefined, draft: Draft | null): Changes {
  const [over, setOver] = useState(0);
  const changedAt = kept?.changedAt ?? 0;
  useEffect(() => {
    const timer = setTimeout(() => setOver(changedAt), changedAt + SHOWN_MS - Date.now());
    return () => clearTimeout(timer);
  }, [changedAt]);
  const moved = draft ? draft.plan.moved : changedAt !== over ? kept?.plan.moved : undefined;
  return useMemo(() => (moved?.length ? new Map(moved.map((m) => [m.name, m.was])) : NOTHING), [moved]);
}
