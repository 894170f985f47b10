import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { NoAnswer, type PlanParts, type Units } from "../../api/client";
import { type Draft, digests, type Kept, withParts } from "./kept";
import { planKey, planParts } from "./queries";

/** How long typing rests before what is tried out for a preview is asked for. */
const REST_MS = 200;
const AGAIN_MS = 2000;

type Asking = {
  runId: number;
  units: Units;
  kept: Kept | undefined;
  draft: Draft | null;
  /** What is in view. */
  names: readonly string[];
  lay: (answer: PlanParts, text: string) => void;
};

/**
 * Asks for the parts in view that are not there yet, once each: of the kept plan, or of the preview with its entry.
 * An answer is laid where it belongs, or dropped where that is gone.
 */
export function useLateParts({ runId, units, kept, draft, names, lay }: Asking): void {
  const queries = useQueryClient();
  /** What was answered, also where there is no such part: it is not asked again. */
  const [answered, setAnswered] = useState<ReadonlySet<string>>(new Set());
  const [again, setAgain] = useState(0);
  const entry = draft?.entry ?? null;
  const of = JSON.stringify([runId, units, kept?.plan.moment, entry]);
  const there = draft?.parts ?? kept?.parts;
  const missing = names.filter((name) => !there?.has(name) && !answered.has(of + name));
  const wanted = missing.join(" ");
  const held = useRef<string[]>([]);
  useEffect(() => {
    held.current = digests(kept, (name) => names.includes(name));
  });
  const ready = kept !== undefined && kept.plan.units === units;

  // biome-ignore lint/correctness/useExhaustiveDependencies: `again` asks once more without an answer
  useEffect(() => {
    if (!ready || wanted === "") return;
    const controller = new AbortController();
    const done = (names: string[]) => setAnswered((all) => new Set([...all, ...names.map((n) => of + n)]));
    const wait = setTimeout(
      () => {
        const mine = wanted.split(" ");
        planParts(runId, units, mine, held.current, entry, controller.signal)
          .then((answer) => {
            done(mine);
            if (entry) lay(answer, entry.text);
            else
              queries.setQueryData<Kept>(planKey(runId, units), (known) => known && withParts(known, answer));
          })
          .catch((error: unknown) => {
            // Without an answer it is asked again; what was refused is not.
            if (controller.signal.aborted) return;
            if (error instanceof NoAnswer) setTimeout(() => setAgain((n) => n + 1), AGAIN_MS);
            else done(mine);
          });
      },
      entry ? REST_MS : 0,
    );
    return () => {
      clearTimeout(wait);
      controller.abort();
    };
  }, [of, wanted, ready, again, entry, lay, queries, runId, units]);
}
