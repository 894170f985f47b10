import { readStored, useStored, writeStored } from "./stored";
import type { SetName } from "./ui/theme";

const NAME = "noble-anvil-set";

function current(stored: string | null): SetName {
  return stored === "dark" ? "dark" : "light";
}

/** Dress the page in the set chosen on this machine; before the first paint, and when it is changed. */
export function dressPage(): void {
  document.documentElement.dataset.set = current(readStored(NAME));
}

/** The set in use, and choosing the other. */
export function useLooks(): { set: SetName; choose: (set: SetName) => void } {
  return {
    set: current(useStored(NAME)),
    choose: (set) => {
      writeStored(NAME, set);
      dressPage();
    },
  };
}
