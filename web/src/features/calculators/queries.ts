import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answered, type Calculator, client, Refused, type Units } from "../../api/client";
import type { Given } from "./draft";

/** Every calculator in the order of the work, its units those shown. */
export function useCalculators(units: Units) {
  return useQuery({
    queryKey: ["calculators", units],
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: keepPreviousData,
    queryFn: () => answered(client.GET("/api/calculators", { params: { query: { units } } })),
  });
}

/** The answer to what is entered; while another one is on its way the last one stays. */
export function useAnswer(calculator: Calculator, given: Given, units: Units) {
  return useQuery({
    queryKey: ["calculator", calculator.name, given, units],
    placeholderData: (last, query) => (query?.queryKey[1] === calculator.name ? last : undefined),
    // What was refused is refused again; only silence is worth another try.
    retry: (times, error) => !(error instanceof Refused) && times < 2,
    queryFn: () =>
      answered(
        client.POST("/api/calculators/{name}", {
          params: { path: { name: calculator.name } },
          body: { given, units },
        }),
      ),
  });
}

/** Runs whose plans can be taken from, those found by some words. */
export function useRuns(find: string) {
  return useQuery({
    queryKey: ["bench", "to take from", find],
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(client.GET("/api/runs", { params: { query: { find, put_away: false, page: 0 } } })),
  });
}

/** What a run's plan asked a calculator. */
export function useTaken(name: string, runId: number | null) {
  return useQuery({
    queryKey: ["taken", name, runId],
    enabled: runId !== null,
    staleTime: 0,
    queryFn: () =>
      answered(
        client.GET("/api/calculators/{name}/from/{run_id}", {
          params: { path: { name, run_id: runId ?? 0 } },
        }),
      ),
  });
}

/** Keep a figure as the plan's; gives the plan's revision after it. */
export async function putBack(runId: number, path: string, value: number, base: number): Promise<number> {
  const kept = await answered(
    client.POST("/api/runs/{run_id}/edits", {
      params: { path: { run_id: runId } },
      body: { path, value, units: "metric", base_revision: base, key: crypto.randomUUID() },
    }),
  );
  return kept.revision;
}
