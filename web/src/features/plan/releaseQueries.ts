import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answered, client, type Units } from "../../api/client";
import { answerOf, type Standing } from "../../shared/questions";

const releasesKey = (runId: number, units: Units) => ["releases", runId, units];

/** What releasing the plan asks, and every release there was. */
export function useReleases(runId: number, units: Units) {
  return useQuery({
    queryKey: releasesKey(runId, units),
    staleTime: 0,
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/releases", {
          params: { path: { run_id: runId }, query: { units } },
        }),
      ),
  });
}

export type Released = { base_revision: number; confirmed: string[]; note: string; key: string };

/** Release the plan as it is. */
export function useRelease(runId: number, units: Units) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Released) =>
      answered(
        client.POST("/api/runs/{run_id}/releases", {
          params: { path: { run_id: runId } },
          body: { ...body, units },
        }),
      ),
    onSuccess: (page) => {
      queries.setQueryData(releasesKey(runId, units), page);
      return Promise.all(
        [["plan"], ["bench"], ["differences", runId]].map((queryKey) =>
          queries.invalidateQueries({ queryKey }),
        ),
      );
    },
  });
}

/** What changed from a release to another one, or to the draft (`other` null). */
export function useDifferences(runId: number, number: number, other: number | null, units: Units) {
  return useQuery({
    queryKey: ["differences", runId, number, other, units],
    staleTime: 0,
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/releases/{number}/differences", {
          params: {
            path: { run_id: runId, number },
            query: other === null ? { units } : { units, other },
          },
        }),
      ),
  });
}

/** Have a run's folder made as one PDF; gives where it is. */
export async function makeFolder(runId: number, units: Units, onStanding: (standing: Standing) => void) {
  const ask = (key: string) =>
    answered(
      client.POST("/api/runs/{run_id}/folder", {
        params: { path: { run_id: runId } },
        body: { key, units, paper: "A4" },
      }),
    );
  return (await answerOf<{ release: number; size: number; href: string }>(ask, { onStanding })).answer;
}
