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
  /** The screen it was typed on. Another tab of the same browser may send it, and then it is somebody else's there. */
  screen: string;
  /** The stop it was typed at. */
  stop?: string;
};

/** This screen, for as long as its page stays open. */
export const SCREEN = crypto.randomUUID();

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

/** What was typed later for a fact on the same screen rests on the answer to what was typed before. */
export function rebase(answered: Unsent, base: number): void {
  const rests = (e: Unsent) =>
    e.runId === answered.runId && e.path === answered.path && e.screen === answered.screen;
  rewrite((all) => all.map((e) => (rests(e) ? { ...e, base } : e)));
}

/** The same as `waiting`, current in every tab. */
export function useWaiting(person: string): Unsent[] {
  return parse(useStored(NAME)).filter((e) => e.person === person);
}
