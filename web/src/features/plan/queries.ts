import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient } from "@tanstack/react-query";
import {
  answered,
  type Check,
  client,
  type Plan,
  type PlanParts,
  type Preview,
  type Units,
} from "../../api/client";
import { answerOf } from "../../shared/questions";
import type { EntryValue } from "../../shared/unsentEdits";
import { digests, type Kept, sinceOf, taken } from "./kept";

export type { EntryValue };

/** How often a plan in view asks whether it is still true: what others do is on it within two seconds. */
const PULSE_MS = 1500;

export function planKey(runId: number, units: Units) {
  return ["plan", runId, units] as const;
}

const path = (runId: number) => ({ path: { run_id: runId } });

/** What a screen shows of a plan: the stop in view, its picture by name, for a stop of the part the set-up. */
export type Look = { stop: string; picture: string; setup: string };

/** What is shown, with what the browser holds of it. */
export type Looking = Look & { held: string[] };

const NO_LOOK: Look = { stop: "", picture: "", setup: "" };

/** A look with the digests of what is held for the stop and the picture in view. */
export function looking(look: Look, kept: Kept | undefined): Looking {
  const shown = (name: string) => name === `stop:${look.stop}` || /^(drawing|pictures):/.test(name);
  return { ...look, held: digests(kept, shown) };
}

/** A run's plan as it is kept, in the units asked for; of its parts those that the screen shows. */
export function usePlan(runId: number, units: Units | null, look: () => Look = () => NO_LOOK) {
  const queries = useQueryClient();
  const queryKey = planKey(runId, units ?? "metric");
  return useQuery({
    queryKey,
    enabled: units !== null,
    placeholderData: keepPreviousData,
    structuralSharing: false,
    queryFn: async () => {
      const before = queries.getQueryData<Kept>(queryKey);
      const query = { units: units ?? "metric", ...looking(look(), before) };
      const since = before ? { since: sinceOf(before) } : {};
      const plan = await answered(
        client.GET("/api/runs/{run_id}/plan", { params: { ...path(runId), query: { ...query, ...since } } }),
      );
      return taken(queries.getQueryData<Kept>(queryKey), plan);
    },
  });
}

/** Parts of a plan that come into view later, of the kept one or of a preview. */
export function planParts(
  runId: number,
  units: Units,
  names: string[],
  held: string[],
  entry: { path: string; text: string } | null,
  signal: AbortSignal,
): Promise<PlanParts> {
  return answered(
    client.POST("/api/runs/{run_id}/parts", {
      params: path(runId),
      body: { units, names, held, entry: entry && { ...entry, units } },
      signal,
    }),
  );
}

/** An earlier state of a plan: a draft of it, or a release. */
export type Moment = { at: number } | { release: number };

/** The plan as it was at an earlier draft; nothing is asked without one. */
export function usePlanAt(runId: number, units: Units, at: Moment | null) {
  return useQuery({
    queryKey: ["plan at", runId, units, at],
    enabled: at !== null,
    staleTime: Number.POSITIVE_INFINITY,
    structuralSharing: false,
    queryFn: async () =>
      taken(
        undefined,
        await answered(
          client.GET("/api/runs/{run_id}/plan", { params: { ...path(runId), query: { units, ...at } } }),
        ),
      ),
  });
}

/** Whether the plan in view is still true, asked again and again. */
export function usePulse(runId: number) {
  return useQuery({
    queryKey: ["pulse", runId],
    refetchInterval: PULSE_MS,
    retry: false,
    staleTime: 0,
    queryFn: () => answered(client.GET("/api/runs/{run_id}/pulse", { params: path(runId) })),
  });
}

/** A run's history, a page at a time, the newest first. */
export function useHistory(runId: number, units: Units) {
  return useInfiniteQuery({
    queryKey: ["history", runId, units],
    initialPageParam: null as number | null,
    staleTime: 0,
    queryFn: ({ pageParam }) => historyPage(runId, units, pageParam),
    getNextPageParam: (last) => (last.more ? (last.entries.at(-1)?.revision ?? null) : null),
  });
}

export function historyPage(runId: number, units: Units, before: number | null) {
  return answered(
    client.GET("/api/runs/{run_id}/history", {
      params: { ...path(runId), query: before === null ? { units } : { units, before } },
    }),
  );
}

/** What an edit would do; nothing is kept. */
export function previewEdit(
  runId: number,
  factPath: string,
  entry: EntryValue,
  units: Units,
  signal: AbortSignal,
  look: Looking,
): Promise<Preview> {
  return answered(
    client.POST("/api/runs/{run_id}/preview", {
      params: path(runId),
      body: { path: factPath, units, ...look, ...entry },
      signal,
    }),
  );
}

/** Keep an edit; `key` makes sending it twice keep it once. */
export function keepEdit(
  runId: number,
  factPath: string,
  entry: EntryValue,
  units: Units,
  base: number,
  key: string,
  look: Looking,
): Promise<Plan> {
  return answered(
    client.POST("/api/runs/{run_id}/edits", {
      params: path(runId),
      body: { path: factPath, units, base_revision: base, key, ...look, ...entry },
    }),
  );
}

/** A side of a run, by its id, at a draft; `moment`: under which state of the shelf, on which day. */
export type OfSide = { runId: number; setup: string; units: Units; revision: number; moment?: string };

/** A check of one side, solved apart from the plan, for one moment of it; asked for when it comes into view. */
export function useCheck(
  check: string,
  { runId, setup, units, revision, moment }: OfSide,
  isInView: boolean,
) {
  return useQuery({
    queryKey: ["check", check, runId, setup, units, revision, moment],
    enabled: isInView,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
    queryFn: async ({ signal }) => {
      const ask = (key: string) =>
        answered(
          client.POST("/api/runs/{run_id}/sides/{setup}/checks/{name}", {
            params: { path: { run_id: runId, setup, name: check } },
            body: { key, units },
          }),
        );
      return (await answerOf<Check>(ask, { signal })).answer;
    },
  });
}

export type Drawing = { text: string; name: string; layer: string | null; unit: "mm" | "in" | null };

/** What a DXF drawing would make of the profile; nothing is kept. */
export function lookAtDrawing(runId: number, drawing: Drawing, units: Units) {
  return answered(
    client.POST("/api/runs/{run_id}/drawing", {
      params: path(runId),
      body: { ...drawing, units },
    }),
  );
}
