import { readStored, useStored, writeStored } from "./stored";

const NAME = "noble-anvil-unsent";

export type EntryValue = { text: string } | { value: string | boolean | number };

/** An edit that the server has not answered yet. It waits here, survives a reload, and is kept once by its key. */
export type Unsent = {
  key: string;
  runId: number;
  path: string;
  entry: EntryValue;
  units: "metric" | "inch";
  base: number;
  person: string;
};

function parse(stored: string | null): Unsent[] {
  try {
    const found: unknown = JSON.parse(stored ?? "[]");
    return Array.isArray(found) ? (found as Unsent[]) : [];
  } catch {
    return [];
  }
}

/** Everything that waits in this browser for a person, the oldest first. */
export function waiting(person: string): Unsent[] {
  return parse(readStored(NAME)).filter((e) => e.person === person);
}

function rewrite(change: (all: Unsent[]) => Unsent[]): void {
  writeStored(NAME, JSON.stringify(change(parse(readStored(NAME)))));
}

export function putUnsent(edit: Unsent): void {
  rewrite((all) => [...all.filter((e) => e.key !== edit.key), edit]);
}

export function dropUnsent(key: string): void {
  rewrite((all) => all.filter((e) => e.key !== key));
}

/** What was typed later for a fact rests on the answer to what was typed before. */
export function rebase(runId: number, path: string, base: number): void {
  rewrite((all) => all.map((e) => (e.runId === runId && e.path === path ? { ...e, base } : e)));
}

/** The same as `waiting`, current in every tab. */
export function useWaiting(person: string): Unsent[] {
  return parse(useStored(NAME)).filter((e) => e.person === person);
}
