import { answered, client, type GainFound, type Settled } from "../../api/client";
import { answerOf, type Standing } from "../../shared/questions";
import type { OfSide } from "./queries";

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
    answered(
      client.POST("/api/runs/{run_id}/start/settle", { params: { path: { run_id: runId } }, body: { key } }),
    );
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
