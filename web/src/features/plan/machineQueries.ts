import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answered, client, type Units } from "../../api/client";

/** How many tools stand on the machine from the run before. */
export function useStays(runId: number, revision: number) {
  return useQuery({
    queryKey: ["stays", runId, revision],
    queryFn: () => answered(client.GET("/api/runs/{run_id}/stays", { params: { path: { run_id: runId } } })),
  });
}

const WATCH_MS = 3000;

/** What was done so far at the card of a release; null: nothing is asked. */
export function useAtMachine(runId: number, release: number | null, units: Units) {
  return useQuery({
    queryKey: ["at machine", runId, release, units],
    enabled: release !== null,
    refetchInterval: WATCH_MS,
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/card/{number}/done", {
          params: { path: { run_id: runId, number: release ?? 0 }, query: { units } },
        }),
      ),
  });
}

/** What the set-up took last time, beside what is planned. */
export function useSetupTook(runId: number, revision: number) {
  return useQuery({
    queryKey: ["setup took", runId, revision],
    queryFn: () =>
      answered(client.GET("/api/runs/{run_id}/card/took", { params: { path: { run_id: runId } } })),
  });
}

/** What was learnt of this part, or of its material, before. */
export function useLastTime(runId: number, units: Units, revision: number) {
  return useQuery({
    queryKey: ["last time", runId, units, revision],
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/last-time", { params: { path: { run_id: runId }, query: { units } } }),
      ),
  });
}
