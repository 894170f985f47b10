import {
  keepPreviousData,
  type QueryClient,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { useEffect } from "react";
import {
  answered,
  client,
  type RunningDoings,
  type RunningKept,
  type RunningPage,
  type Units,
} from "../../api/client";
import { useContact } from "../../api/contact";
import { useWaiting } from "../../shared/outbox";
import {
  isReady,
  isRunning,
  type RunningDoing,
  sendWork,
  type UnsentWork,
  unsentWork,
} from "../../shared/unsentWork";

const LOOK_AGAIN_MS = 3000;

/** Which lot an address is of; nothing: of the release that stands, the lot that is made. */
export type RunningAddress = { runId: number; units: Units; release: number | null; lot: string };

const keyOf = (of: RunningAddress) => ["running", of.runId, of.units, of.release, of.lot];

/** Which lot an address asks for. */
export function addressed(runId: number, search: URLSearchParams): RunningAddress {
  const release = search.get("release");
  return {
    runId,
    units: search.get("units") === "inch" ? "inch" : "metric",
    release: release === null ? null : Number(release),
    lot: search.get("lot") ?? "",
  };
}

const askFor = (of: RunningAddress) => ({
  queryKey: keyOf(of),
  queryFn: () =>
    answered(
      client.GET("/api/runs/{run_id}/running", {
        params: {
          path: { run_id: of.runId },
          query: {
            units: of.units,
            ...(of.release !== null && { release: of.release }),
            ...(of.lot && { lot: of.lot }),
          },
        },
      }),
    ),
});

/** Ask for the lot at an address before its screen is there. */
export function askEarly(queries: QueryClient, { pathname, searchParams }: URL): void {
  const run = /^\/runs\/(\d+)\/running$/.exec(pathname)?.[1];
  if (run !== undefined) void queries.prefetchQuery(askFor(addressed(Number(run), searchParams)));
}

/** A lot as it stands; asked for again as soon as anything of it was kept. */
export function useRunning(of: RunningAddress) {
  const page = useQuery({ ...askFor(of), refetchOnWindowFocus: false, placeholderData: keepPreviousData });
  const { refetch } = page;
  const known = page.data;
  const pulse = useQuery({
    queryKey: ["running-pulse", of.runId, known?.release.number, known?.lot],
    enabled: known !== undefined,
    refetchInterval: LOOK_AGAIN_MS,
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/running/{number}/{lot}/pulse", {
          params: {
            path: { run_id: of.runId, number: known?.release.number ?? 0, lot: known?.lot ?? "" },
          },
        }),
      ),
  });
  const [seen, revision] = [pulse.data?.revision, known?.revision];
  useEffect(() => {
    if (seen !== undefined && revision !== undefined && seen > revision) void refetch();
  }, [seen, revision, refetch]);
  return {
    page,
    replaced: pulse.data?.replaced ?? known?.release.replaced ?? false,
    lookedAt: pulse.dataUpdatedAt,
  };
}

/** What came of something that was done. */
export type Came =
  | { kind: "kept"; told: readonly string[]; level: RunningKept["level"]; piece: number | null }
  | { kind: "waits" }
  | { kind: "asked"; words: string }
  | { kind: "wrong"; words: string; fields: Record<string, string> };

/** What is done while pieces come off: it is kept on this tablet first, and from there sent once. */
export function useDoing(page: RunningPage, of: RunningAddress, person: string, lookedAt: number) {
  const queries = useQueryClient();
  const { away } = useContact();
  const waits = useWaiting(unsentWork, person).filter(
    (w) => isRunning(w) && w.runId === page.run && w.release === page.release.number,
  );
  const send = useMutation({
    mutationFn: () => sendWork(person),
    scope: { id: "card-work" }, // one after the other: what is under way is not sent beside itself
    onSuccess: (sent) => {
      const last = sent.findLast((s) => "page" in s.done)?.done as RunningKept | undefined;
      if (last && last.page.lot === page.lot && last.page.units === page.units)
        queries.setQueryData(keyOf(of), last.page);
      if (sent.length > 0) void queries.invalidateQueries({ queryKey: ["bench"] });
    },
  });
  const { mutate, mutateAsync } = send;
  const mayGo = !away && waits.some(isReady);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each look at the server tries again
  useEffect(() => {
    if (mayGo) mutate();
  }, [mayGo, lookedAt, mutate]);
  /** Keep something, and send it. */
  async function keep<To extends keyof RunningDoings>(to: To, body: RunningDoings[To]): Promise<Came> {
    const key = crypto.randomUUID();
    const work: UnsentWork = {
      key,
      person,
      runId: page.run,
      run: page.name,
      release: page.release.number,
      step: page.lot,
      units: page.units,
      at: new Date().toISOString(),
      doing: { to, lot: page.lot, body } as RunningDoing,
    };
    if (!unsentWork.put(work)) {
      const words = "This browser keeps nothing: allow it to store data for this address, then do it again.";
      return { kind: "wrong", words, fields: {} };
    }
    const sent = await mutateAsync().catch(() => []); // it waits then
    const mine = sent.find((s) => s.work.key === key)?.done as RunningKept | undefined;
    if (mine) return { kind: "kept", told: mine.told, level: mine.level, piece: mine.piece };
    const left = unsentWork.waiting(person).find((w) => w.key === key);
    if (left?.asked) {
      unsentWork.drop(key);
      return { kind: "asked", words: left.asked };
    }
    if (left?.refused) {
      unsentWork.drop(key);
      return { kind: "wrong", words: left.refused, fields: left.fields ?? {} };
    }
    return { kind: "waits" };
  }
  return { waits, away, isBusy: send.isPending, keep };
}

export type Doing = ReturnType<typeof useDoing>;

/** What is called what, of what waits. */
export function waitingTitle(work: UnsentWork): string {
  if (!isRunning(work)) return work.step;
  const { doing } = work;
  if (doing.to === "pieces") return doing.body.good === false ? "A scrap piece" : "A good piece";
  if (doing.to === "sizes") return "What was measured";
  if (doing.to === "changes") return doing.body.kind === "edge" ? "A fresh edge" : "An offset";
  return doing.to === "stops" ? "A stop" : "A correction";
}

/** Pieces that wait on this tablet: counted, and good. */
export function waitingPieces(waits: readonly UnsentWork[]): { counted: number; good: number } {
  const pieces = waits.filter((w) => isRunning(w) && w.doing.to === "pieces" && !w.refused);
  const good = pieces.filter((w) => isRunning(w) && w.doing.to === "pieces" && w.doing.body.good !== false);
  return { counted: pieces.length, good: good.length };
}

/** One reading of an instrument, as it is entered. */
export async function readInstrument(name: string, units: Units): Promise<string> {
  return (await answered(client.POST("/api/instruments/read", { body: { name, units } }))).text;
}

/** A piece that was counted, by its number. */
export function usePiece(page: RunningPage, number: number | null) {
  return useQuery({
    queryKey: ["running-piece", page.run, page.release.number, page.lot, number, page.units, page.revision],
    enabled: number !== null,
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/running/{number}/{lot}/pieces/{piece}", {
          params: {
            path: { run_id: page.run, number: page.release.number, lot: page.lot, piece: number ?? 0 },
            query: { units: page.units },
          },
        }),
      ),
  });
}

const closingKey = (page: RunningPage) => [
  "running-closing",
  page.run,
  page.release.number,
  page.lot,
  page.units,
];

/** A lot at its end. */
export function useClosing(page: RunningPage) {
  return useQuery({
    queryKey: [...closingKey(page), page.revision],
    queryFn: () =>
      answered(
        client.GET("/api/runs/{run_id}/running/{number}/{lot}/closing", {
          params: {
            path: { run_id: page.run, number: page.release.number, lot: page.lot },
            query: { units: page.units },
          },
        }),
      ),
  });
}

/** Close a lot: what goes into the notebook, and what the next one should know. */
export function useClose(page: RunningPage, of: RunningAddress) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (given: { keep: string[]; lesson: string }) =>
      answered(
        client.POST("/api/runs/{run_id}/running/closing", {
          params: { path: { run_id: page.run } },
          body: {
            key: crypto.randomUUID(),
            release: page.release.number,
            lot: page.lot,
            units: page.units,
            ...given,
          },
        }),
      ),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: keyOf(of) });
      void queries.invalidateQueries({ queryKey: closingKey(page) });
      void queries.invalidateQueries({ queryKey: ["notebook"] });
    },
  });
}

/** Take a file of measured pieces. */
export function useFile(page: RunningPage, of: RunningAddress) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (text: string) =>
      answered(
        client.POST("/api/runs/{run_id}/running/file", {
          params: { path: { run_id: page.run } },
          body: {
            key: crypto.randomUUID(),
            release: page.release.number,
            lot: page.lot,
            units: page.units,
            text,
          },
        }),
      ),
    onSuccess: (found) => queries.setQueryData(keyOf(of), found.page),
  });
}
