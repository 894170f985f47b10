import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answered, client } from "../../api/client";
import type { OfSide } from "./queries";

/** A cut of a side, by ids, at a draft. */
export type OfCut = OfSide & { cut: string };

/** Every tool for a cut, the rejected with the rule that rejects each; asked for when it is looked at. */
export function useToolsForCut({ runId, setup, cut, units, revision }: OfCut, find: string, wanted: boolean) {
  return useQuery({
    queryKey: ["tools", runId, setup, cut, units, revision, find],
    enabled: wanted,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/sides/{setup}/cuts/{cut}/tools", {
          params: { path: { run_id: runId, setup, cut }, query: { units, find } },
        }),
      ),
  });
}

const likeKey = ({ runId, setup, cut, units, revision }: OfCut) => [
  "like",
  runId,
  setup,
  cut,
  units,
  revision,
];

/** Proven cuts like a planned one. */
export function useLikeCuts(of: OfCut) {
  return useQuery({
    queryKey: likeKey(of),
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/sides/{setup}/cuts/{cut}/proven", {
          params: { path: { run_id: of.runId, setup: of.setup, cut: of.cut }, query: { units: of.units } },
        }),
      ),
  });
}

/** Keep a planned cut that worked, with what was seen of it. */
export function useKeepCut(of: OfCut) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (fields: Record<string, string>) =>
      answered(
        client.POST("/api/runs/{run_id}/sides/{setup}/cuts/{cut}/keep", {
          params: { path: { run_id: of.runId, setup: of.setup, cut: of.cut } },
          body: { fields, units: of.units, key: crypto.randomUUID() },
        }),
      ),
    onSuccess: () =>
      Promise.all([["like"], ["notebook"]].map((queryKey) => queries.invalidateQueries({ queryKey }))),
  });
}
