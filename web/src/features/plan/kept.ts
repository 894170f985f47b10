import type { Offer, Part, Plan, PlanParts, Preview, Stop, StopLine } from "../../api/client";

export type Parts = ReadonlyMap<string, Part>;

/**
 * A plan as it is kept: every stop in its line, and the parts that were looked at. `stale` are parts of before: they
 * are never shown as what counts, only named to the server, which leaves out what has not changed. `since` is the
 * draft that `plan.moved` is told against, `changedAt` when that came in.
 */
export type Kept = { plan: Plan; parts: Parts; stale: Parts; since: number; changedAt: number };

/** A preview and the parts that came with it. It lies over the kept plan, never over another preview. */
export type Draft = { plan: Preview; parts: Parts; entry: { path: string; text: string } };

/** What is shown: the plan that counts now, and its parts. */
export type Shown = { plan: Plan; parts: Parts };

const NOTHING: Parts = new Map();

function isWhole(part: Part): boolean {
  return Object.keys(part).length > 2; // more than its name and digest
}

/** Parts with their content: sent, or held with the same digest. What is neither is left out, and asked for again. */
function filled(sent: readonly Part[], held: readonly Parts[]): Map<string, Part> {
  const found = new Map<string, Part>();
  for (const part of sent) {
    const known = held.map((h) => h.get(part.name)).find((h) => h?.digest === part.digest);
    const whole = isWhole(part) ? part : known;
    if (whole) found.set(part.name, whole);
  }
  return found;
}

function merged(...parts: readonly Parts[]): Map<string, Part> {
  return new Map(parts.flatMap((p) => [...p]));
}

/** A plan that the server sent, with what of the one before is still true. An older one never replaces a newer one. */
export function taken(before: Kept | undefined, plan: Plan): Kept {
  const comparable = before && before.plan.run.id === plan.run.id && before.plan.units === plan.units;
  if (!comparable)
    return { plan, parts: filled(plan.parts, []), stale: NOTHING, since: plan.revision, changedAt: 0 };
  if (plan.revision < before.plan.revision) return before;
  const sent = filled(plan.parts, [before.parts, before.stale]);
  if (plan.moment === before.plan.moment) return { ...before, plan, parts: merged(before.parts, sent) };
  const moved =
    plan.revision > before.plan.revision ? { since: before.plan.revision, changedAt: Date.now() } : {};
  return { ...before, ...moved, plan, parts: sent, stale: merged(before.stale, before.parts) };
}

/** How long the marks of what moved stay. */
export const SHOWN_MS = 8000;

/** The draft that what moved is told against: the one before the last change, while its marks are shown. */
export function sinceOf(kept: Kept): number {
  return Date.now() - kept.changedAt < SHOWN_MS ? kept.since : kept.plan.revision;
}

/** The kept plan with parts that came later; what is of another moment of it is dropped. */
export function withParts(kept: Kept, answer: PlanParts): Kept {
  if (answer.path !== null || answer.moment !== kept.plan.moment) return kept;
  return { ...kept, parts: merged(kept.parts, filled(answer.parts, [kept.parts, kept.stale])) };
}

/** A preview with what it shares with the kept plan; null where it is of another moment of it. */
export function draftOver(kept: Kept, preview: Preview, text: string): Draft | null {
  if (preview.moment !== kept.plan.moment) return null;
  return { plan: preview, parts: filled(preview.parts, [kept.parts]), entry: { path: preview.path, text } };
}

/** A preview with parts that came later; what belongs to another entry or moment is dropped. */
export function draftWithParts(draft: Draft, kept: Kept, answer: PlanParts, text: string): Draft {
  const mine = answer.path === draft.entry.path && text === draft.entry.text;
  if (!mine || answer.moment !== draft.plan.moment) return draft;
  return { ...draft, parts: merged(draft.parts, filled(answer.parts, [kept.parts])) };
}

/** What counts on the screen: the draft over the kept plan, else the kept plan itself. */
export function shownOf(kept: Kept, draft: Draft | null): Shown {
  if (!draft) return { plan: kept.plan, parts: kept.parts };
  const { stops, sides, verdict, moved, view, run } = draft.plan;
  return { plan: { ...kept.plan, run, stops, sides, verdict, moved, view }, parts: draft.parts };
}

/** Digests of what is held of the kept plan, as the server reads them. */
export function digests(kept: Kept | undefined, names: (name: string) => boolean): string[] {
  if (!kept) return [];
  return [...merged(kept.stale, kept.parts).values()]
    .filter((p) => p.digest !== "" && names(p.name))
    .map((p) => `${p.name}=${p.digest}`);
}

/** A stop of the shown plan with its page, undefined until that is there. */
export function stopOf(shown: Shown, line: StopLine | undefined): Stop | undefined {
  const page = line && shown.parts.get(`stop:${line.key}`)?.stop;
  return line && page ? { ...line, ...page } : undefined;
}

/** The name of the part that holds a picture of a stop, of the set-up in view. */
export function partOf(offer: Offer, stop: StopLine, setup: string): string {
  return offer.of === "pictures" ? `pictures:${stop.key}` : `drawing:${stop.setup ?? setup}:${offer.name}`;
}

/** What a part holds. While the one that counts now is not here, the last one of its name is shown, marked late. */
export type Latest<T> = { content: T | undefined; isLate: boolean };

export function latest<T>(
  shown: Shown,
  kept: Kept | undefined,
  name: string,
  content: (part: Part) => T | null | undefined,
): Latest<T> {
  const now = shown.parts.get(name);
  const last = now ?? kept?.parts.get(name) ?? kept?.stale.get(name);
  return { content: (last && content(last)) ?? undefined, isLate: now === undefined };
}
