import { useCallback, useEffect, useRef, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { fieldErrors, type Plan, said } from "../../api/client";
import { Dropped, type Standing } from "../../shared/questions";
import type { Action } from "./acting";
import { settleStart } from "./settling";

export type Starting = {
  /** What is being done, in words; empty while nothing is. */
  told: string;
  isBusy: boolean;
  /** Why it did not go, by the path of the fact that is missing; an empty path: of no single fact. */
  wrong: Record<string, string>;
  propose: () => void;
};

const SETTLING = "Set-ups proposed. Settling them: pressure, speeds, feeds and clamps";

function wordsOf(standing: Standing | null): string {
  if (standing === null) return `${SETTLING} …`;
  return standing.of > 0
    ? `${SETTLING}, side ${Math.min(standing.done + 1, standing.of)} of ${standing.of} …`
    : `${SETTLING} …`;
}

/**
 * The set-ups proposed with one press: begun at once, so that every stop has its values, then settled and taken.
 *
 * A run that was made with that press is proposed as soon as its plan is here.
 */
export function useStart(
  runId: number,
  plan: Plan | undefined,
  act: (action: Action, onRefused: (error: unknown) => void) => Promise<Plan | null>,
): Starting {
  const [told, setTold] = useState("");
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const asking = useRef<AbortController | null>(null);
  const location = useLocation();
  const navigate = useNavigate();
  const asked = (location.state as { propose?: boolean } | null)?.propose === true;
  // biome-ignore lint/correctness/useExhaustiveDependencies: of another run nothing is waited for
  useEffect(() => () => asking.current?.abort(), [runId]);

  const base = plan?.revision;
  const propose = useCallback(async () => {
    if (base === undefined) return;
    const controller = new AbortController();
    asking.current = controller;
    setWrong({});
    setTold("Proposing the set-ups …");
    const refused = (error: unknown) => {
      const at = fieldErrors(error);
      const dropped = "The plan was changed meanwhile: propose again, what you decided stays.";
      setWrong(Object.keys(at).length > 0 ? at : { "": error instanceof Dropped ? dropped : said(error) });
    };
    try {
      const begun = await act({ kind: "start", base }, refused);
      if (begun === null) return;
      setTold(wordsOf(null));
      const found = await settleStart(runId, controller.signal, (s) => setTold(wordsOf(s)));
      await act({ kind: "startSettled", question: found.key, base: begun.revision }, refused);
    } catch (error) {
      if (!controller.signal.aborted) refused(error);
    } finally {
      setTold("");
    }
  }, [act, base, runId]);

  const begin = useRef(propose);
  useEffect(() => {
    begin.current = propose;
  });
  const isHere = plan !== undefined;
  useEffect(() => {
    if (!asked || !isHere) return;
    // Once: coming back to this page proposes nothing again.
    void navigate({ pathname: location.pathname, search: location.search }, { replace: true, state: null });
    void begin.current();
  }, [asked, isHere, navigate, location.pathname, location.search]);

  return { told, isBusy: told !== "", wrong, propose: () => void propose() };
}
