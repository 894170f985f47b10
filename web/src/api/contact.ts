import { useSyncExternalStore } from "react";

/** Said of an answer that this browser had kept: when it came from the server. */
export const KEPT_AT = "X-Anvil-Kept-At";

/** Whether the server answers. `away`: it does not; `since`: what is shown came from it then, where that is known. */
export type Contact = { away: boolean; since: string | null };

let contact: Contact = { away: false, since: null };
const watchers = new Set<() => void>();

function be(found: Contact) {
  if (found.away === contact.away && found.since === contact.since) return;
  contact = found;
  for (const tell of watchers) tell();
}

/** An answer came: from the server, or kept here from an earlier one. */
export function heard(headers: Headers) {
  const since = headers.get(KEPT_AT);
  be({ away: since !== null, since });
}

/** No answer came. */
export function heardNothing() {
  be({ away: true, since: contact.since });
}

/** Whether the server answers, as the last request found. */
export function useContact(): Contact {
  return useSyncExternalStore(
    (tell) => {
      watchers.add(tell);
      return () => watchers.delete(tell);
    },
    () => contact,
  );
}
