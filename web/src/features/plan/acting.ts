import { answered, client, type Plan, type Units } from "../../api/client";
import type { Drawing, Looking } from "./queries";

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
  const params = { path: { run_id: runId } };
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
