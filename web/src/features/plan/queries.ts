import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { answered, client, type Plan, type Units } from "../../api/client";
import type { EntryValue } from "../../shared/outbox";

export type { EntryValue };

/** How often a plan in view asks whether it is still true: what others do is on it within two seconds. */
const PULSE_MS = 1500;

export function planKey(runId: number, units: Units) {
  return ["plan", runId, units] as const;
}

const path = (runId: number) => ({ path: { run_id: runId } });

/** A run's plan as it is kept, in the units asked for. */
export function usePlan(runId: number, units: Units | null) {
  return useQuery({
    queryKey: planKey(runId, units ?? "metric"),
    enabled: units !== null,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/plan", {
          params: { ...path(runId), query: { units: units ?? "metric" } },
        }),
      ),
  });
}

/** An earlier state of a plan: a draft of it, or a release. */
export type Moment = { at: number } | { release: number };

/** The plan as it was at an earlier draft; nothing is asked without one. */
export function usePlanAt(runId: number, units: Units, at: Moment | null) {
  return useQuery({
    queryKey: ["plan at", runId, units, at],
    enabled: at !== null,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/plan", { params: { ...path(runId), query: { units, ...at } } }),
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
): Promise<Plan> {
  return answered(
    client.POST("/api/runs/{run_id}/preview", {
      params: path(runId),
      body: { path: factPath, units, ...entry },
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
): Promise<Plan> {
  return answered(
    client.POST("/api/runs/{run_id}/edits", {
      params: path(runId),
      body: { path: factPath, units, base_revision: base, key, ...entry },
    }),
  );
}

/** A side of a run, by its id, at a draft. */
export type OfSide = { runId: number; setup: string; units: Units; revision: number };

/** A check of one side, solved apart from the plan, for one draft of it. */
export function useCheck(check: string, { runId, setup, units, revision }: OfSide) {
  return useQuery({
    queryKey: ["check", check, runId, setup, units, revision],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/sides/{setup}/checks/{name}", {
          params: { path: { run_id: runId, setup, name: check }, query: { units } },
        }),
      ),
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

/** What changes a plan other than an edit of one fact. */
export type Action =
  | { kind: "undo" }
  | { kind: "redo" }
  | { kind: "add"; path: string; name: string; itemKind: string | null }
  | { kind: "remove"; path: string; base: number }
  | { kind: "move"; path: string; behind: string; base: number }
  | { kind: "split"; path: string; base: number }
  | { kind: "propose"; setup: string; base: number }
  | { kind: "settle"; setup: string; cut: string | null; base: number }
  | { kind: "proven"; setup: string; cut: string; proven: number; base: number }
  | { kind: "restore"; revision: number; base: number }
  | { kind: "drawing"; drawing: Drawing; base: number };

/** Do it, once, however often it is sent. */
export function act(runId: number, action: Action, units: Units): Promise<Plan> {
  const params = path(runId);
  const keyed = { key: crypto.randomUUID(), units };
  switch (action.kind) {
    case "undo":
      return answered(client.POST("/api/runs/{run_id}/undo", { params, body: keyed }));
    case "redo":
      return answered(client.POST("/api/runs/{run_id}/redo", { params, body: keyed }));
    case "add":
      return answered(
        client.POST("/api/runs/{run_id}/items", {
          params,
          body: { ...keyed, path: action.path, name: action.name, kind: action.itemKind },
        }),
      );
    case "remove":
      return answered(
        client.POST("/api/runs/{run_id}/items/remove", {
          params,
          body: { ...keyed, path: action.path, base_revision: action.base },
        }),
      );
    case "move":
      return answered(
        client.POST("/api/runs/{run_id}/items/move", {
          params,
          body: { ...keyed, path: action.path, behind: action.behind, base_revision: action.base },
        }),
      );
    case "split":
      return answered(
        client.POST("/api/runs/{run_id}/items/split", {
          params,
          body: { ...keyed, path: action.path, base_revision: action.base },
        }),
      );
    case "propose":
      return answered(
        client.POST("/api/runs/{run_id}/sides/{setup}/proposal", {
          params: { path: { run_id: runId, setup: action.setup } },
          body: { ...keyed, base_revision: action.base },
        }),
      );
    case "settle":
      return answered(
        client.POST("/api/runs/{run_id}/sides/{setup}/settled", {
          params: { path: { run_id: runId, setup: action.setup } },
          body: { ...keyed, cut: action.cut, base_revision: action.base },
        }),
      );
    case "proven":
      return answered(
        client.POST("/api/runs/{run_id}/sides/{setup}/cuts/{cut}/proven", {
          params: { path: { run_id: runId, setup: action.setup, cut: action.cut } },
          body: { ...keyed, proven: action.proven, base_revision: action.base },
        }),
      );
    case "drawing":
      return answered(
        client.POST("/api/runs/{run_id}/profile", {
          params,
          body: { ...keyed, ...action.drawing, base_revision: action.base },
        }),
      );
    case "restore":
      return answered(
        client.POST("/api/runs/{run_id}/restore", {
          params,
          body: { ...keyed, revision: action.revision, base_revision: action.base },
        }),
      );
  }
}

/** The fastest figures that every limit allows, of one cut or of the whole set-up; nothing is kept. */
export function settle(runId: number, setup: string, cut: string | null, units: Units) {
  return answered(
    client.POST("/api/runs/{run_id}/sides/{setup}/settle", {
      params: { path: { run_id: runId, setup } },
      body: { cut, units },
    }),
  );
}

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
