import type { CardDone, CardMark, CardReading, CardStep } from "../../api/client";

/** What was done at a card so far, by step. */
export class Standing {
  private readonly marks: ReadonlyMap<string, CardMark>;
  private readonly readings: ReadonlyMap<string, CardReading>;

  constructor(done: Pick<CardDone, "marks" | "readings"> | undefined) {
    this.marks = new Map((done?.marks ?? []).map((m) => [m.step, m]));
    // The last reading of a step is the one in force.
    this.readings = new Map((done?.readings ?? []).map((r) => [r.step, r]));
  }

  /** The mark that counts of a step; undefined while it is open. */
  of(step: string): CardMark | undefined {
    const mark = this.marks.get(step);
    return mark?.state === "open" ? undefined : mark;
  }

  /** What was read last at a step. */
  read(step: string): CardReading | undefined {
    return this.readings.get(step);
  }

  /** How many of these steps are done or skipped. */
  count(steps: readonly CardStep[]): number {
    return steps.filter((s) => this.of(s.id)).length;
  }

  /** Where to go on: the first step that is open, the last where none is. */
  next(steps: readonly CardStep[]): number {
    const found = steps.findIndex((s) => !this.of(s.id));
    return found < 0 ? steps.length - 1 : found;
  }
}
