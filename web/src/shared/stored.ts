import { useSyncExternalStore } from "react";

const watchers = new Set<() => void>();

/** What is kept in this browser under a name; null where there is nothing, or where nothing can be kept. */
export function readStored(name: string): string | null {
  try {
    return localStorage.getItem(name);
  } catch {
    return null;
  }
}

/** Keep something in this browser; gives whether that went. */
export function writeStored(name: string, value: string | null): boolean {
  try {
    if (value === null) localStorage.removeItem(name);
    else localStorage.setItem(name, value);
  } catch {
    return false;
  } finally {
    for (const tell of watchers) tell();
  }
  return true;
}

function watch(tell: () => void): () => void {
  watchers.add(tell);
  window.addEventListener("storage", tell);
  return () => {
    watchers.delete(tell);
    window.removeEventListener("storage", tell);
  };
}

/** What is kept under a name, current in every tab. */
export function useStored(name: string): string | null {
  return useSyncExternalStore(watch, () => readStored(name));
}
