import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answered, client, type Plan, type Units } from "../../api/client";

export function planKey(runId: number, units: Units) {
  return ["plan", runId, units] as const;
}

/** A run's plan as it is kept, in the units asked for. */
export function usePlan(runId: number, units: Units | null) {
  return useQuery({
    queryKey: planKey(runId, units ?? "metric"),
    enabled: units !== null,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/plan", {
          params: { path: { run_id: runId }, query: { units: units ?? "metric" } },
        }),
      ),
  });
}

export type EntryValue = { text: string } | { value: string | boolean | number };

/** What an edit would do; nothing is kept. */
export function previewEdit(
  runId: number,
  path: string,
  entry: EntryValue,
  units: Units,
  signal: AbortSignal,
): Promise<Plan> {
  return answered(
    client.POST("/api/runs/{run_id}/preview", {
      params: { path: { run_id: runId } },
      headers: { "X-Units": units },
      body: { path, units, ...entry },
      signal,
    }),
  );
}

/** Keep an edit; `key` makes sending it twice keep it once. */
export function keepEdit(
  runId: number,
  path: string,
  entry: EntryValue,
  units: Units,
  base: number,
  key: string,
): Promise<Plan> {
  return answered(
    client.POST("/api/runs/{run_id}/edits", {
      params: { path: { run_id: runId } },
      headers: { "X-Units": units },
      body: { path, units, base_revision: base, key, ...entry },
    }),
  );
}
