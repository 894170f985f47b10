import { Outbox } from "./outbox";

export type EntryValue = { text: string } | { value: string | boolean | number };

/** An edit of a plan that the server has not answered yet. */
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

export const unsentEdits = new Outbox<Unsent>("noble-anvil-unsent");

/** What was typed later for a fact on the same screen rests on the answer to what was typed before. */
export function rebase(answered: Unsent, base: number): void {
  const rests = (e: Unsent) =>
    e.runId === answered.runId && e.path === answered.path && e.screen === answered.screen;
  unsentEdits.rewrite((all) => all.map((e) => (rests(e) ? { ...e, base } : e)));
}
