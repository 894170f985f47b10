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
};

export type Editing = {
  /** The plan as it would be, while something is being typed. */
  draft: Plan | null;
  trouble: Trouble | null;
  type: (path: string, text: string) => void;
  keep: (path: string, entry: EntryValue) => void;
  /** Put one fact back: its preview and its trouble go, another fact's trouble stays. */
  cancel: (path: string) => void;
  tryAgain: () => void;
  takeTheirs: () => void;
  takeMine: () => void;
};

const PAUSE_MS = 350;

function troubleOf(error: unknown, path: string, entry: EntryValue, key: string): Trouble {
  if (error instanceof Refused && error.status === 409) {
    return {
      path,
      entry,
      key,
      kind: "conflict",
      message: error.message,
      theirs: String(error.problem?.theirs ?? ""),
    };
  }
  if (error instanceof Refused) {
    const said = error.problem?.errors ?? [];
    const here = said.find((e) => e.field === path) ?? said[0];
    return { path, entry, key, kind: "refused", message: here?.message ?? error.message };
  }
  return {
    path,
    entry,
    key,
    kind: "unsent",
    message: "Not kept: the server does not answer. Your text stays here.",
  };
}

/** Previewing while typing and keeping on Enter. An older answer never replaces a newer one. */
export function useEditing(runId: number, units: Units, kept: Plan | undefined): Editing {
  const queries = useQueryClient();
  const [draft, setDraft] = useState<Plan | null>(null);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const latest = useRef(0);
  const asking = useRef<AbortController | null>(null);
  const sending = useRef(0);

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
        setTrouble(null);
      })
      .catch((error: unknown) => {
        if (controller.signal.aborted) return;
        // The drawing keeps the last good state; the field says what to do, once the typing pauses:
        // the 8 of an 80 is no mistake yet.
        setTimeout(() => {
          if (mine === latest.current) setTrouble(troubleOf(error, path, { text }, crypto.randomUUID()));
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
      if (mine === sending.current) {
        setDraft(null);
        setTrouble(null);
      }
    } catch (error) {
      if (mine !== sending.current) return;
      if (!(error instanceof NoAnswer)) setDraft(null);
      setTrouble(troubleOf(error, path, entry, key));
    }
  }

  function keep(path: string, entry: EntryValue) {
    if (kept) void send(path, entry, kept.revision, crypto.randomUUID());
  }

  function cancel(path: string) {
    forget();
    setDraft(null);
    setTrouble((known) => (known?.path === path ? null : known));
  }

  async function refresh(): Promise<Plan | undefined> {
    await queries.invalidateQueries({ queryKey: planKey(runId, units) });
    return queries.getQueryData<Plan>(planKey(runId, units));
  }

  return {
    draft: current,
    trouble,
    type,
    keep,
    cancel,
    tryAgain: () => {
      if (trouble && kept) void send(trouble.path, trouble.entry, kept.revision, trouble.key);
    },
    takeTheirs: () => {
      if (trouble) cancel(trouble.path);
      void refresh();
    },
    takeMine: () => {
      if (!trouble) return;
      const { path, entry } = trouble;
      void refresh().then((plan) => plan && send(path, entry, plan.revision, crypto.randomUUID()));
    },
  };
}
