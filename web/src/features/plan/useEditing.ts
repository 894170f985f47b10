import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { NoAnswer, type Plan, type PlanParts, Refused, said, type Units } from "../../api/client";
import { useWaiting } from "../../shared/outbox";
import { rebase, SCREEN, type Unsent, unsentEdits } from "../../shared/unsentEdits";
import { type Action, act } from "./acting";
import { type Draft, draftOver, draftWithParts, type Kept, taken } from "./kept";
import { type EntryValue, keepEdit, type Look, looking, planKey, previewEdit } from "./queries";

/** An edit that is not kept: refused by the core, in conflict, or without an answer from the server. */
export type Trouble = {
  path: string;
  entry: EntryValue;
  kind: "refused" | "conflict" | "unsent";
  message: string;
  theirs?: string;
  /** The units it was typed in: a bare number is never read again in others. */
  units: Units;
  /** The stop it was typed at, where that is known. */
  stop: string;
};

/** Every edit that is not kept, by its path: one fact's trouble never hides another's. */
export type Troubles = Readonly<Record<string, Trouble>>;

export type Editing = {
  /** The plan as it would be, while something is being typed. */
  draft: Draft | null;
  /** Parts of the preview that came later. */
  lay: (answer: PlanParts, text: string) => void;
  /** What was typed in the units shown and is not kept. */
  troubles: Troubles;
  /** Something typed in the other units is not kept either. */
  othersWaiting: boolean;
  /** How many edits wait for the server. */
  unsent: number;
  /** What came of the last undo, redo or change of a list, where it did not go. */
  told: string;
  type: (path: string, text: string) => void;
  keep: (path: string, entry: EntryValue) => void;
  /** Put one fact back: its preview and its trouble go. */
  cancel: (path: string) => void;
  /** Send what waits, now. */
  sendWaiting: () => void;
  takeTheirs: (path: string) => void;
  takeMine: (path: string) => void;
  /** Undo, redo, put in, take out; gives the plan that it makes, null where it did not go. */
  act: (action: Action, onRefused?: (error: unknown) => void) => Promise<Plan | null>;
};

const PAUSE_MS = 350;

/** What was typed, where, in which units. */
type Typed = { path: string; entry: EntryValue; units: Units; stop?: string };

function troubleOf(error: unknown, typed: Typed): Trouble {
  const { path } = typed;
  if (error instanceof Refused && error.status === 409 && error.problem?.yours !== undefined) {
    return {
      stop: "",
      ...typed,
      kind: "conflict",
      message: error.message,
      theirs: String(error.problem.theirs ?? ""),
    };
  }
  if (error instanceof Refused) {
    const told = error.problem?.errors ?? [];
    const here = told.filter((e) => e.field === path || e.field.startsWith(`${path}.`));
    const words = here.length > 0 ? here.map((e) => e.message).join("\n") : told[0]?.message;
    return { stop: "", ...typed, kind: "refused", message: words ?? error.message };
  }
  return unsentTrouble(typed);
}

function unsentTrouble({ path, entry, units, stop = "" }: Typed): Trouble {
  const message = "Not kept yet: the server does not answer. It waits here and is sent when it does.";
  return { path, entry, units, stop, kind: "unsent", message };
}

/** Whether a path counts places, as they did before items had ids: what it meant is not known any more. */
function countsPlaces(path: string): boolean {
  return path.split(".").some((part) => /^\d+$/.test(part));
}

/** Whether the server may still keep it when it is asked again: it did not answer, or its disk was full. */
function mayGoLater(error: unknown): boolean {
  return error instanceof NoAnswer || (error instanceof Refused && error.status === 507);
}

/**
 * Previewing while typing and keeping on Enter. An older answer never replaces a newer one.
 *
 * What is kept goes through the outbox of this browser, one edit after the other: without an answer it stays
 * there, survives a reload, and goes out once the server is back.
 */
export function useEditing(
  runId: number,
  units: Units,
  kept: Kept | undefined,
  person: string,
  look: Look,
): Editing {
  const queries = useQueryClient();
  const [draft, setDraft] = useState<Draft | null>(null);
  const [troubles, setTroubles] = useState<Troubles>({});
  const [silent, setSilent] = useState(false);
  const [told, setTold] = useState("");
  const latest = useRef(0);
  const asking = useRef<AbortController | null>(null);
  const typing = useRef<{ path: string; text: string } | null>(null);
  /** What was on the screen when typing began: somebody else's change since then is a conflict, and told. */
  const begun = useRef<{ path: string; base: number } | null>(null);
  const revision = kept?.plan.revision;
  const moment = kept?.plan.moment;
  const now = useRef({ look, kept });
  useEffect(() => {
    now.current = { look, kept };
  });
  const lookingNow = useCallback(() => looking(now.current.look, now.current.kept), []);
  const sending = useRef<Promise<void> | null>(null);
  const outbox = useWaiting(unsentEdits, person).filter((e) => e.runId === runId);

  const put = useCallback(
    (trouble: Trouble) => setTroubles((all) => ({ ...all, [trouble.path]: trouble })),
    [],
  );
  const clear = useCallback(
    (path: string) =>
      setTroubles((all) =>
        path in all ? Object.fromEntries(Object.entries(all).filter(([p]) => p !== path)) : all,
      ),
    [],
  );

  const forget = useCallback(() => {
    latest.current += 1;
    asking.current?.abort();
    asking.current = null;
    typing.current = null;
  }, []);

  // Another run or unit system: what was being asked belongs to the one before.
  // biome-ignore lint/correctness/useExhaustiveDependencies: runs on exactly these changes
  useEffect(() => forget, [runId, units, forget]);
  const current =
    draft && draft.plan.run.id === runId && draft.plan.units === units && draft.plan.moment === moment
      ? draft
      : null;

  const type = useCallback(
    (path: string, text: string) => {
      forget();
      typing.current = { path, text };
      if (begun.current?.path !== path) begun.current = { path, base: revision ?? 0 };
      const mine = latest.current;
      const controller = new AbortController();
      asking.current = controller;
      previewEdit(runId, path, { text }, units, controller.signal, lookingNow())
        .then((preview) => {
          const over = now.current.kept;
          if (mine !== latest.current || !over) return;
          // One of another moment is asked for again, as soon as the plan of that moment is here.
          setDraft(draftOver(over, preview, text));
          clear(path);
        })
        .catch((error: unknown) => {
          if (controller.signal.aborted || error instanceof NoAnswer) return;
          // The drawing keeps the last good state; the field says what to do, once the typing pauses:
          // the 8 of an 80 is no mistake yet.
          setTimeout(() => {
            if (mine === latest.current)
              put(troubleOf(error, { path, entry: { text }, units, stop: now.current.look.stop }));
          }, PAUSE_MS);
        });
    },
    [runId, units, revision, forget, put, clear, lookingNow],
  );

  // Somebody else's edit came in, or another stop into view, while something is being typed: show what it would do.
  // biome-ignore lint/correctness/useExhaustiveDependencies: runs on exactly these changes
  useEffect(() => {
    if (typing.current) type(typing.current.path, typing.current.text);
  }, [moment, look.stop, type]);

  function take(plan: Plan) {
    if (plan.units === units)
      queries.setQueryData<Kept>(planKey(runId, units), (known) => taken(known, plan));
    void queries.invalidateQueries({ queryKey: ["bench"] });
    // The same plan in the other units is out of date now.
    queries.removeQueries({ queryKey: planKey(runId, units === "metric" ? "inch" : "metric") });
  }

  async function sendOne(edit: Unsent): Promise<boolean> {
    if (countsPlaces(edit.path)) {
      unsentEdits.drop(edit.key);
      const typed = "text" in edit.entry ? edit.entry.text : String(edit.entry.value);
      setTold(
        `Not kept: “${typed}” waited here from before this plan’s items had names of their own. Type it again.`,
      );
      return true;
    }
    try {
      const plan = await keepEdit(
        runId,
        edit.path,
        edit.entry,
        edit.units,
        edit.base,
        edit.key,
        lookingNow(),
      );
      unsentEdits.drop(edit.key);
      rebase(edit, plan.revision);
      if (edit.screen === SCREEN && begun.current?.path === edit.path) begun.current.base = plan.revision;
      take(plan);
      clear(edit.path);
    } catch (error) {
      if (mayGoLater(error)) {
        setSilent(true);
        if (error instanceof Refused) setTold(error.message);
        return false;
      }
      unsentEdits.drop(edit.key);
      put(troubleOf(error, edit));
    }
    setSilent(false);
    setTold("");
    return true;
  }

  async function sendAll() {
    for (;;) {
      const [first] = unsentEdits.waiting(person).filter((e) => e.runId === runId);
      if (!first || !(await sendOne(first))) return;
    }
  }

  function flush(): Promise<void> {
    sending.current ??= sendAll().finally(() => {
      sending.current = null;
      if (!typing.current) setDraft(null);
    });
    return sending.current;
  }

  function keepFrom(base: number, path: string, entry: EntryValue) {
    forget();
    begun.current = null;
    clear(path);
    const stop = now.current.look.stop;
    unsentEdits.put({
      key: crypto.randomUUID(),
      runId,
      path,
      entry,
      units,
      base,
      person,
      screen: SCREEN,
      stop,
    });
    void flush();
  }

  function keep(path: string, entry: EntryValue) {
    if (kept) keepFrom(begun.current?.path === path ? begun.current.base : kept.plan.revision, path, entry);
  }

  // What waited from before this page was opened goes out as soon as the plan is there.
  const isHere = kept !== undefined;
  const flushNow = useRef(flush);
  useEffect(() => {
    flushNow.current = flush;
  });
  useEffect(() => {
    if (isHere && unsentEdits.waiting(person).some((e) => e.runId === runId)) void flushNow.current();
  }, [isHere, runId, person]);

  const stuck = silent ? outbox : [];
  const all: Troubles = {
    ...troubles,
    ...Object.fromEntries(stuck.map((e) => [e.path, unsentTrouble(e)])),
  };
  const mine = Object.fromEntries(Object.entries(all).filter(([, t]) => t.units === units));

  function cancel(path: string) {
    forget();
    begun.current = null;
    setDraft(null);
    clear(path);
    for (const edit of stuck) if (edit.path === path) unsentEdits.drop(edit.key);
  }

  async function refresh(): Promise<Plan | undefined> {
    await queries.invalidateQueries({ queryKey: planKey(runId, units) });
    return queries.getQueryData<Kept>(planKey(runId, units))?.plan;
  }

  return {
    draft: current,
    lay: useCallback((answer, text) => {
      const over = now.current.kept;
      if (over) setDraft((draft) => draft && draftWithParts(draft, over, answer, text));
    }, []),
    troubles: mine,
    othersWaiting: Object.keys(mine).length < Object.keys(all).length,
    unsent: stuck.length,
    told,
    type,
    keep,
    cancel,
    sendWaiting: () => void flush(),
    takeTheirs: (path) => {
      cancel(path);
      void refresh();
    },
    takeMine: (path) => {
      const trouble = mine[path];
      if (!trouble) return;
      void refresh().then((plan) => plan && keepFrom(plan.revision, path, trouble.entry));
    },
    act: async (action, onRefused) => {
      forget();
      setDraft(null);
      await flush(); // what was kept before comes first
      try {
        const plan = await act(runId, action, units, lookingNow());
        take(plan);
        setTold("");
        return plan;
      } catch (error) {
        const [first] = error instanceof Refused ? (error.problem?.errors ?? []) : [];
        if (onRefused) onRefused(error);
        else
          setTold(first?.message ?? (error instanceof NoAnswer ? `Not done: ${said(error)}` : said(error)));
        if (error instanceof Refused && error.status === 409) void refresh();
        return null;
      }
    },
  };
}
