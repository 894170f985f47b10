import { type QueryClient, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answered, type CardPage, client, type Units } from "../../api/client";
import { useContact } from "../../api/contact";
import { useWaiting } from "../../shared/outbox";
import {
  type Doing,
  isReady,
  isRunning,
  sendWork,
  type UnsentWork,
  unsentWork,
} from "../../shared/unsentWork";

const LOOK_AGAIN_MS = 3000;

const cardKey = (runId: number, units: Units, release: number | null) => ["card", runId, units, release];
const doneKey = (runId: number, release: number, units: Units) => ["card-done", runId, release, units];

/** Which card an address is of. */
export type CardAddress = { runId: number; units: Units; release: number | null };

const askFor = ({ runId, units, release }: CardAddress) => ({
  queryKey: cardKey(runId, units, release),
  queryFn: () =>
    answered(
      client.GET("/api/runs/{run_id}/card", {
        params: { path: { run_id: runId }, query: { units, ...(release !== null && { release }) } },
      }),
    ),
});

/** Which card an address asks for. */
export function addressed(runId: number, search: URLSearchParams): CardAddress {
  const release = search.get("release");
  return {
    runId,
    units: search.get("units") === "inch" ? "inch" : "metric",
    release: release === null ? null : Number(release),
  };
}

/** The card of a release; without a number of the one that stands. */
export function useCard(of: CardAddress) {
  return useQuery({ ...askFor(of), refetchOnWindowFocus: false });
}

/** Ask for the card at an address before its screen is there. */
export function askEarly(queries: QueryClient, { pathname, searchParams }: URL): void {
  const run = /^\/runs\/(\d+)\/card$/.exec(pathname)?.[1];
  if (run) void queries.prefetchQuery(askFor(addressed(Number(run), searchParams)));
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

/** What a person does at a card: it is kept on this tablet first, and from there sent once. */
export function useWork(page: CardPage, units: Units, person: string, lookedAt: number) {
  const queries = useQueryClient();
  const { away } = useContact();
  const waits = useWaiting(unsentWork, person).filter(
    (w) => w.runId === page.run && w.release === page.release.number && !isRunning(w),
  );
  const send = useMutation({
    mutationFn: () => sendWork(person),
    scope: { id: "card-work" }, // one after the other: what is under way is not sent beside itself
    onSuccess: (sent) => {
      for (const { work, done } of sent)
        if ("marks" in done) queries.setQueryData(doneKey(work.runId, work.release, work.units), done);
      if (sent.length > 0) void queries.invalidateQueries({ queryKey: ["bench"] });
    },
  });
  const { mutate, mutateAsync } = send;
  const mayGo = !away && waits.some(isReady);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each look at the server tries again
  useEffect(() => {
    if (mayGo) mutate();
  }, [mayGo, lookedAt, mutate]);
  const [wrong, setWrong] = useState("");
  /** Keep something, and send it; gives whether it was not refused. */
  async function keep(step: string, doing: Doing): Promise<boolean> {
    setWrong("");
    const key = crypto.randomUUID();
    const work: UnsentWork = {
      key,
      person,
      runId: page.run,
      run: page.name,
      release: page.release.number,
      step,
      units,
      at: new Date().toISOString(),
      doing,
    };
    if (!unsentWork.put(work)) {
      setWrong("This browser keeps nothing: allow it to store data for this address, then do it again.");
      return false;
    }
    await mutateAsync().catch(() => undefined); // it waits then
    const left = unsentWork.waiting(person).find((w) => w.key === key);
    if (!left?.refused) return true;
    unsentWork.drop(key);
    setWrong(left.refused);
    return false;
  }
  return { waits, away, isBusy: send.isPending, wrong, forget: () => setWrong(""), keep };
}
