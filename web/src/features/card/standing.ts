import type { CardDone, CardMark, CardReading, CardStep } from "../../api/client";
import { isRunning, type UnsentWork } from "../../shared/unsentWork";

type Mark = Pick<CardMark, "state" | "reason" | "by" | "at">;

/** What was done at a card so far, by step: what the server knows, and over it what waits on this tablet. */
export class Standing {
  private readonly marks: ReadonlyMap<string, Mark>;
  private readonly readings: ReadonlyMap<string, CardReading[]>;
  private readonly unjudged: ReadonlyMap<string, readonly UnsentWork[]>;

  constructor(done: Pick<CardDone, "marks" | "readings">, waits: readonly UnsentWork[] = []) {
    const marks = new Map<string, Mark>(done.marks.map((m) => [m.step, m]));
    const unjudged = new Map<string, UnsentWork[]>();
    for (const work of waits) {
      if (isRunning(work)) continue;
      if (!("state" in work.doing)) unjudged.set(work.step, [...(unjudged.get(work.step) ?? []), work]);
      else if (!work.refused) marks.set(work.step, { ...work.doing, by: work.person, at: work.at });
    }
    const readings = new Map<string, CardReading[]>();
    for (const r of done.readings) readings.set(r.step, [...(readings.get(r.step) ?? []), r]);
    this.marks = marks;
    this.readings = readings;
    this.unjudged = unjudged;
  }

  /** The mark that counts of a step; undefined while it is open. */
  of(step: string): Mark | undefined {
    const mark = this.marks.get(step);
    return mark?.state === "open" ? undefined : mark;
  }

  /** What was read last at a step: it is the one in force. */
  read(step: string): CardReading | undefined {
    return this.readings.get(step)?.at(-1);
  }

  /** How many readings of a step are known, those that wait on this tablet too. */
  seen(step: string): number {
    return (this.readings.get(step)?.length ?? 0) + (this.unjudged.get(step)?.length ?? 0);
  }

  /** Readings of a step that were made without knowing of each other, as long as the last of them counts. */
  twice(step: string): readonly CardReading[] {
    const all = this.readings.get(step) ?? [];
    return all.slice(all.findLastIndex((r) => !r.twice) + 1);
  }

  /** What was read at a step and waits for the server: nobody has judged it yet. */
  waits(step: string): UnsentWork | undefined {
    return this.unjudged.get(step)?.at(-1);
  }

  /** How a step stands, in a word. */
  word(step: string): "open" | "done" | "skipped" | "waits" {
    return this.unjudged.has(step)
      ? "waits"
      : ((this.of(step)?.state as "done" | "skipped" | undefined) ?? "open");
  }

  /** How many of these steps are done or skipped. */
  count(steps: readonly CardStep[]): number {
    return steps.filter((s) => this.of(s.id)).length;
  }

  /** Where to go on: the first step that is open, the last where none is. */
  next(steps: readonly CardStep[]): number {
    const found = steps.findIndex((s) => this.word(s.id) === "open");
    return found < 0 ? steps.length - 1 : found;
  }
}
