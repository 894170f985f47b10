import { useState } from "react";

/** The last value that was there, while there is none: what was answered before stays where a question is refused. */
export function useLast<T>(value: T | undefined): T | undefined {
  const [last, setLast] = useState(value);
  if (value !== undefined && value !== last) setLast(value);
  return value ?? last;
}
