import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answered, type CardDone, type CardPage, client, type Units } from "../../api/client";

const LOOK_AGAIN_MS = 3000;

const cardKey = (runId: number, units: Units, release: number | null) => ["card", runId, units, release];
const doneKey = (runId: number, release: number, units: Units) => ["card-done", runId, release, units];

/** The card of a release; without a number of the one that stands. */
export function useCard(runId: number, units: Units, release: number | null) {
  return useQuery({
    queryKey: cardKey(runId, units, release),
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/card", {
          params: { path: { run_id: runId }, query: { units, ...(release !== null && { release }) } },
        }),
      ),
    refetchOnWindowFocus: false,
  });
}

/** What was done at a card, by everybody at it, looked at again and again. */
export function useDone(card: CardPage | undefined, units: Units) {
  const release = card?.release.number ?? 0;
  return useQuery({
    queryKey: doneKey(card?.run ?? 0, release, units),
    enabled: card !== undefined,
    refetchInterval: LOOK_AGAIN_MS,
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/card/{number}/done", {
          params: { path: { run_id: card?.run ?? 0, number: release }, query: { units } },
        }),
      ),
  });
}

export type Values = Record<string, string | boolean>;
type Of = { runId: number; release: number; units: Units };

/** What would follow from a reading; nothing is kept. */
export function lookAt(of: Of, step: string, values: Values, signal: AbortSignal) {
  return answered(
    client.POST("/api/runs/{run_id}/card/look", {
      params: { path: { run_id: of.runId } },
      body: { release: of.release, step, values, units: of.units },
      signal,
    }),
  );
}

/** One reading of an instrument, as it is entered. */
export async function measure(name: string, units: Units): Promise<string> {
  return (await answered(client.POST("/api/instruments/read", { body: { name, units } }))).text;
}

export type Marking = { step: string; state: "done" | "skipped" | "open"; reason?: string };
export type Reading = { step: string; values: Values; sure: boolean };

/** Tick a step, skip it, or keep what was read; what was done so far is then shown. */
export function useDo(of: Of) {
  const queries = useQueryClient();
  const onSuccess = (done: CardDone) => {
    queries.setQueryData(doneKey(of.runId, of.release, of.units), done);
    return queries.invalidateQueries({ queryKey: ["bench"] });
  };
  const mark = useMutation({
    mutationFn: ({ step, state, reason = "" }: Marking) =>
      answered(
        client.POST("/api/runs/{run_id}/card/marks", {
          params: { path: { run_id: of.runId } },
          body: { key: crypto.randomUUID(), release: of.release, step, state, reason },
        }),
      ),
    // Its answer tells readings in the card's own units by the next look.
    onSuccess: async (done: CardDone) => {
      if (of.units === "metric") await onSuccess(done);
      else await queries.invalidateQueries({ queryKey: doneKey(of.runId, of.release, of.units) });
    },
  });
  const read = useMutation({
    mutationFn: ({ step, values, sure }: Reading) =>
      answered(
        client.POST("/api/runs/{run_id}/card/readings", {
          params: { path: { run_id: of.runId } },
          body: {
            key: crypto.randomUUID(),
            release: of.release,
            step,
            values,
            units: of.units,
            instrument: "",
            sure,
          },
        }),
      ),
    onSuccess,
  });
  return { mark, read };
}
