import type { CardStep } from "../../api/client";

type Pressing = {
  step: CardStep | undefined;
  isDone: boolean;
  isReading: boolean;
  hasReading: boolean;
  /** The server did not answer what follows from it. */
  isUnjudged: boolean;
  /** The step is done with this reading. */
  isLast: boolean;
  asked: boolean;
  following: CardStep | undefined;
  mayMark: boolean;
};

/** What the one big button does next; null while it cannot. */
export function wordsOf({
  step,
  isDone,
  isReading,
  hasReading,
  isUnjudged,
  isLast,
  asked,
  following,
  mayMark,
}: Pressing): string | null {
  const then = following ? `Next: ${following.title.toLowerCase()}` : "To the end";
  if (!step) return "Begin";
  if (!mayMark) return following ? then : null;
  if (isReading && hasReading && isUnjudged) return `Keep it here, not judged yet. ${then}`;
  if (isReading && hasReading && asked) return "Yes, that is right. Keep it";
  if (isReading && hasReading) return isLast ? `Keep it. ${then}` : "Keep it, and read again";
  if (isDone) return following ? then : null;
  if (isReading) return null;
  return `Done. ${then}`;
}
