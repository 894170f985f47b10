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
  onBack: () => void,
): Live {
  const queries = useQueryClient();
  const pulse = usePulse(runId);
  const [news, setNews] = useState("");
  const isSilent = pulse.error instanceof NoAnswer;
  const wasSilent = useRef(false);
  const shelf = useRef<string | undefined>(undefined);

  const theirs = pulse.data?.revision ?? 0;
  const ours = kept?.revision ?? 0;
  useEffect(() => {
    if (theirs <= ours || kept === undefined) return;
    void queries.invalidateQueries({ queryKey: planKey(runId, units) });
    let current = true;
    historyPage(runId, units, null)
      .then(({ entries }) => {
        const told = entries.filter((e) => e.revision > ours && e.by !== person).slice(0, 2);
        if (current && told.length > 0) setNews(told.map((e) => `${e.by}: ${e.text}`).join(" · "));
      })
      .catch(() => {}); // the plan itself tells what moved
    return () => {
      current = false;
    };
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

  useEffect(() => {
    if (wasSilent.current && !isSilent) onBack();
    wasSilent.current = isSilent;
  }, [isSilent, onBack]);

  return { isSilent, news };
}
