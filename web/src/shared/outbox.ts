import { readStored, useStored, writeStored } from "./stored";

/** Something that the server has not answered yet, of a person. It is kept once by its key. */
type Waiting = { key: string; person: string };

function parse<T>(stored: string | null): T[] {
  try {
    const found: unknown = JSON.parse(stored ?? "[]");
    return Array.isArray(found) ? (found as T[]) : [];
  } catch {
    return [];
  }
}

/** What waits in this browser for the server, under a name: it survives a reload, the oldest goes first. */
export class Outbox<T extends Waiting> {
  constructor(readonly name: string) {}

  /** Everything that waits here for anybody. */
  all(): T[] {
    return parse<T>(readStored(this.name));
  }

  /** Everything that waits here of a person. */
  waiting(person: string): T[] {
    return this.all().filter((e) => e.person === person);
  }

  /** Change what waits; gives whether this browser could keep it. */
  rewrite(change: (all: T[]) => T[]): boolean {
    return writeStored(this.name, JSON.stringify(change(this.all())));
  }

  put(one: T): boolean {
    return this.rewrite((all) => [...all.filter((e) => e.key !== one.key), one]);
  }

  drop(key: string): void {
    this.rewrite((all) => all.filter((e) => e.key !== key));
  }

  /** Note something of one that waits. */
  note(key: string, about: Partial<T>): void {
    this.rewrite((all) => all.map((e) => (e.key === key ? { ...e, ...about } : e)));
  }
}

/** What waits of a person, current in every tab. */
export function useWaiting<T extends Waiting>(outbox: Outbox<T>, person: string): T[] {
  return parse<T>(useStored(outbox.name)).filter((e) => e.person === person);
}
