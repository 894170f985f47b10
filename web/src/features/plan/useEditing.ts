import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { NoAnswer, type Plan, Refused, type Units } from "../../api/client";
import { type EntryValue, keepEdit, planKey, previewEdit } from "./queries";

/** An edit that is not kept: refused by the core, in conflict, or without an answer from the server. */
export type Trouble = {
  path: string;
  entry: EntryValue;
  kind: "refused" | "conflict" | "unsent";
  message: string;
  theirs?: string;
  key: string;
  /** The units it was typed in: a bare number is never read again in others. */
  units: Units;
};

/** Every edit that is not kept, by its path: one fact's trouble never hides another's. */
export type Troubles = Readonly<Record<string, Trouble>>;

export type Editing = {
  /** The plan as it would be, while something is being typed. */
  draft: Plan | null;
  /** What was typed in the units shown and is not kept. */
  troubles: Troubles;
  /** Something typed in the other units is not kept either. */
  othersWaiting: boolean;
  type: (path: string, text: string) => void;
  keep: (path: string, entry: EntryValue) => void;
  /** Put one fact back: its preview and its trouble go. */
  cancel: (path: string) => void;
  tryAgain: (path: string) => void;
  takeTheirs: (path: string) => void;
  takeMine: (path: string) => void;
};

const PAUSE_MS = 350;

function troubleOf(error: unknown, path: string, entry: EntryValue, key: string, units: Units): Trouble {
  const typed = { path, entry, key, units };
  if (error instanceof Refused && error.status === 409) {
    return {
      ...typed,
      kind: "conflict",
      message: error.message,
      theirs: String(error.problem?.theirs ?? ""),
    };
  }
  if (error instanceof Refused) {
    const said = error.problem?.errors ?? [];
    const here = said.find((e) => e.field === path) ?? said[0];
    return { ...typed, kind: "refused", message: here?.message ?? error.message };
  }
  return {
    ...typed,
    kind: "unsent",
    message: "Not kept: the server does not answer. Your text stays here.",
  };
}

/** Previewing while typing and keeping on Enter. An older answer never replaces a newer one. */
export function useEditing(runId: number, units: Units, kept: Plan | undefined): Editing {
  const queries = useQueryClient();
  const [draft, setDraft] = useState<Plan | null>(null);
  const [troubles, setTroubles] = useState<Troubles>({});
  const latest = useRef(0);
  const asking = useRef<AbortController | null>(null);
  const sending = useRef(0);

  const put = (trouble: Trouble) => setTroubles((all) => ({ ...all, [trouble.path]: trouble }));
  const clear = (path: string) =>
    setTroubles((all) =>
      path in all ? Object.fromEntries(Object.entries(all).filter(([p]) => p !== path)) : all,
    );

  const forget = useCallback(() => {
    latest.current += 1;
    asking.current?.abort();
    asking.current = null;
  }, []);

  // Another run or unit system: what was being asked belongs to the one before.
  // biome-ignore lint/correctness/useExhaustiveDependencies: runs on exactly these changes
  useEffect(() => forget, [runId, units, forget]);
  const current = draft && draft.run.id === runId && draft.units === units ? draft : null;

  function type(path: string, text: string) {
    forget();
    const mine = latest.current;
    const controller = new AbortController();
    asking.current = controller;
    previewEdit(runId, path, { text }, units, controller.signal)
      .then((plan) => {
        if (mine !== latest.current) return;
        setDraft(plan);
        clear(path);
      })
      .catch((error: unknown) => {
        if (controller.signal.aborted) return;
        // The drawing keeps the last good state; the field says what to do, once the typing pauses:
        // the 8 of an 80 is no mistake yet.
        setTimeout(() => {
          if (mine === latest.current) put(troubleOf(error, path, { text }, crypto.randomUUID(), units));
        }, PAUSE_MS);
      });
  }

  async function send(path: string, entry: EntryValue, base: number, key: string) {
    forget();
    sending.current += 1;
    const mine = sending.current;
    try {
      const plan = await keepEdit(runId, path, entry, units, base, key);
      const known = queries.getQueryData<Plan>(planKey(runId, units));
      if (!known || plan.revision >= known.revision) queries.setQueryData(planKey(runId, units), plan);
      void queries.invalidateQueries({ queryKey: ["bench"] });
      // The same plan in the other units is out of date now.
      queries.removeQueries({ queryKey: planKey(runId, units === "metric" ? "inch" : "metric") });
      if (mine === sending.current) setDraft(null);
      clear(path);
    } catch (error) {
      if (mine === sending.current && !(error instanceof NoAnswer)) setDraft(null);
      put(troubleOf(error, path, entry, key, units));
    }
  }

  function keep(path: string, entry: EntryValue) {
    if (kept) void send(path, entry, kept.revision, crypto.randomUUID());
  }

  const mine = Object.fromEntries(Object.entries(troubles).filter(([, t]) => t.units === units));

  function cancel(path: string) {
    forget();
    setDraft(null);
    clear(path);
  }

  async function refresh(): Promise<Plan | undefined> {
    await queries.invalidateQueries({ queryKey: planKey(runId, units) });
    return queries.getQueryData<Plan>(planKey(runId, units));
  }

  return {
    draft: current,
    troubles: mine,
    othersWaiting: Object.keys(mine).length < Object.keys(troubles).length,
    type,
    keep,
    cancel,
    tryAgain: (path) => {
      const trouble = mine[path];
      if (trouble && kept) void send(path, trouble.entry, kept.revision, trouble.key);
    },
    takeTheirs: (path) => {
      cancel(path);
      void refresh();
    },
    takeMine: (path) => {
      const trouble = mine[path];
      if (!trouble) return;
      void refresh().then((plan) => plan && send(path, trouble.entry, plan.revision, crypto.randomUUID()));
    },
  };
}
