import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import {
  answered,
  type Check,
  client,
  type GainFound,
  type Plan,
  type PlanParts,
  type Preview,
  type Settled,
  type Units,
} from "../../api/client";
import { answerOf, type Standing } from "../../shared/questions";
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

/** What changes a plan other than an edit of one fact. */
export type Action =
  | { kind: "undo" }
  | { kind: "redo" }
  | { kind: "add"; path: string; name: string; itemKind: string | null }
  | { kind: "remove"; path: string; base: number }
  | { kind: "move"; path: string; behind: string; base: number }
  | { kind: "across"; path: string; base: number }
  | { kind: "split"; path: string; base: number }
  | { kind: "propose"; setup: string; base: number }
  | { kind: "start"; base: number }
  | { kind: "startSettled"; question: string; base: number }
  | { kind: "looksRight"; setup: string; base: number }
  | { kind: "settle"; setup: string; question: string; base: number }
  | { kind: "gain"; setup: string; idea: string; question: string; base: number }
  | { kind: "proven"; setup: string; cut: string; proven: number; base: number }
  | { kind: "restore"; revision: number; base: number }
  | { kind: "drawing"; drawing: Drawing; base: number };

/** Do it, once, however often it is sent. */
export function act(runId: number, action: Action, units: Units, look?: Looking): Promise<Plan> {
  const params = path(runId);
  const keyed = { key: crypto.randomUUID(), units, ...look };
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
    case "across":
      return answered(
        client.POST("/api/runs/{run_id}/items/across", {
          params,
          body: { ...keyed, path: action.path, base_revision: action.base },
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
    case "start":
      return answered(
        client.POST("/api/runs/{run_id}/start", { params, body: { ...keyed, base_revision: action.base } }),
      );
    case "startSettled":
      return answered(
        client.POST("/api/runs/{run_id}/start/settled", {
          params,
          body: { ...keyed, question: action.question, base_revision: action.base },
        }),
      );
    case "looksRight":
      return answered(
        client.POST("/api/runs/{run_id}/sides/{setup}/looks-right", {
          params: { path: { run_id: runId, setup: action.setup } },
          body: { ...keyed, base_revision: action.base },
        }),
      );
    case "settle":
      return answered(
        client.POST("/api/runs/{run_id}/sides/{setup}/settled", {
          params: { path: { run_id: runId, setup: action.setup } },
          body: { ...keyed, question: action.question, base_revision: action.base },
        }),
      );
    case "gain":
      return answered(
        client.POST("/api/runs/{run_id}/sides/{setup}/ideas/{idea}/taken", {
          params: { path: { run_id: runId, setup: action.setup, idea: action.idea } },
          body: { ...keyed, question: action.question, base_revision: action.base },
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

/** What is made least: the time of a piece, or the wear of edges. */
export type Goal = "quickest" | "cheapest" | "life";

/** The best figures that every limit allows, of one cut or of the whole set-up; nothing is kept. */
export function settle(
  { runId, setup, units }: OfSide,
  wanted: { cut: string | null; goal: Goal },
  signal: AbortSignal,
  onStanding: (standing: Standing) => void,
) {
  const ask = (key: string) =>
    answered(
      client.POST("/api/runs/{run_id}/sides/{setup}/settle", {
        params: { path: { run_id: runId, setup } },
        body: { key, units, ...wanted },
      }),
    );
  return answerOf<Settled>(ask, { signal, onStanding });
}

/** The proposed plan with every side settled; nothing is kept. */
export function settleStart(runId: number, signal: AbortSignal, onStanding: (standing: Standing) => void) {
  const ask = (key: string) =>
    answered(client.POST("/api/runs/{run_id}/start/settle", { params: path(runId), body: { key } }));
  return answerOf<{ revision: number; changes: number }>(ask, { signal, onStanding });
}

/** What could be changed about a set-up. */
export function gainIdeas({ runId, setup, units }: OfSide) {
  return answered(
    client.GET("/api/runs/{run_id}/sides/{setup}/ideas", {
      params: { path: { run_id: runId, setup }, query: { units } },
    }),
  );
}

/** What one change gains with everything settled for it; nothing is kept. */
export function gainOf({ runId, setup, units }: OfSide, idea: string, signal: AbortSignal) {
  const ask = (key: string) =>
    answered(
      client.POST("/api/runs/{run_id}/sides/{setup}/ideas/{idea}", {
        params: { path: { run_id: runId, setup, idea } },
        body: { key, units },
      }),
    );
  return answerOf<GainFound>(ask, { signal });
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
