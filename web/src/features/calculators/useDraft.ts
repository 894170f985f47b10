import { useEffect, useState } from "react";
import type { Calculator, Units } from "../../api/client";
import { useLast } from "../../shared/useLast";
import { asked, at, type Given, type Path, put, withUnits } from "./draft";
import { useAnswer } from "./queries";

/** The answer comes while one types, but not for every key. */
const WAIT_MS = 120;

function useLater<T>(value: T): T {
  const [later, setLater] = useState(value);
  useEffect(() => {
    const wait = setTimeout(() => setLater(value), WAIT_MS);
    return () => clearTimeout(wait);
  }, [value]);
  return later;
}

/** What is entered into an calculator, how it reads, and the answer to it. */
export function useDraft(calculator: Calculator, begin: Given, units: Units) {
  const [given, setGiven] = useState(begin);
  const later = useLater(given);
  const fields = calculator.fields;
  const answer = useAnswer(calculator, asked(fields, later), units);
  const isOld = later !== given || answer.isPlaceholderData || answer.isError;
  const known = useLast(answer.data);
  // A typed text stands as it was typed; anything else as the answer wrote it, once it has.
  const text = (path: Path): unknown => {
    const own = at(given, path);
    if (typeof own === "string" || typeof own === "boolean") return own;
    const isRead = own === undefined || at(known?.given, path) === own;
    return isRead ? (at(known?.shown, path) ?? "") : units === "metric" ? String(own) : "";
  };
  return {
    given,
    answer,
    /** The last answer there was. */
    known,
    isOld,
    text,
    set: (path: Path, value: unknown) => setGiven((g) => put(g, path, value) as Given),
    /** All of it at once: an example, a link, what a plan asked. */
    fill: (all: Given) => setGiven(all),
    /** Before other units are shown: figures stay what they are. */
    settle: () => setGiven((g) => (isOld || !known ? withUnits(fields, g) : known.given)),
    /** The rows of a list. */
    rows: (path: Path): unknown[] => {
      const own = at(given, path) ?? at(known?.given, path);
      return Array.isArray(own) ? own : [];
    },
  };
}

export type Draft = ReturnType<typeof useDraft>;
