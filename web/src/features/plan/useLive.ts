import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { NoAnswer, type Plan, type Units } from "../../api/client";
import { historyPage, planKey, usePulse } from "./queries";

const SHOWN_MS = 8000;

export type Live = {
  /** The server has not answered the last time it was asked. */
  isSilent: boolean;
  /** What somebody else has just changed, in words. */
  news: string;
};

/** Keeps a plan in view true: what others do to it, or to the shelf, is on the screen within two seconds. */
export function useLive(
  runId: number,
  units: Units,
  kept: Plan | undefined,
  person: string,
  onAnswer: () => void,
): Live {
  const queries = useQueryClient();
  const pulse = usePulse(runId);
  const [news, setNews] = useState("");
  const isSilent = pulse.error instanceof NoAnswer;
  const shelf = useRef<string | undefined>(undefined);

  const here = useRef<number | null>(runId);
  useEffect(() => {
    here.current = runId;
    return () => {
      here.current = null;
    };
  }, [runId]);

  const theirs = pulse.data?.revision ?? 0;
  const ours = kept?.revision ?? 0;
  useEffect(() => {
    if (theirs <= ours || kept === undefined) return;
    void queries.invalidateQueries({ queryKey: planKey(runId, units) });
    // Told even when the plan itself is here before the words of what was done to it.
    historyPage(runId, units, null)
      .then(({ entries }) => {
        const told = entries.filter((e) => e.revision > ours && e.by !== person).slice(0, 2);
        if (here.current === runId && told.length > 0)
          setNews(told.map((e) => `${e.by}: ${e.text}`).join(" · "));
      })
      .catch(() => {}); // the plan itself tells what moved
  }, [theirs, ours, kept, queries, runId, units, person]);

  useEffect(() => {
    if (!news) return;
    const timer = setTimeout(() => setNews(""), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [news]);

  const state = pulse.data?.shelf;
  useEffect(() => {
    if (state === undefined) return;
    if (shelf.current !== undefined && shelf.current !== state) {
      void queries.invalidateQueries({ queryKey: planKey(runId, units) });
      setNews("The shelf has changed.");
    }
    shelf.current = state;
  }, [state, queries, runId, units]);

  // Each answer is a chance for what waits here; a server that was away for less than a pulse is not missed.
  const heard = useRef(onAnswer);
  useEffect(() => {
    heard.current = onAnswer;
  });
  const answeredAt = pulse.dataUpdatedAt;
  useEffect(() => {
    if (answeredAt > 0) heard.current();
  }, [answeredAt]);

  return { isSilent, news };
}
