import { useEffect } from "react";

export type Shortcuts = {
  goTo: (index: number) => void;
  units: () => void;
  working: () => void;
  help: () => void;
};

export const SHORTCUT_LIST = [
  ["Alt+1 … Alt+5", "go to a stop"],
  ["u", "inch or metric"],
  ["w", "working of the stop's first answer"],
  ["?", "this list"],
  ["Enter", "keep what is typed, go to the next fact"],
  ["Escape", "put back what was there"],
] as const;

function isField(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  );
}

/** Single letters never fire inside a field; there the same actions work with Alt. */
export function useShortcuts(actions: Shortcuts) {
  useEffect(() => {
    function onKey(event: KeyboardEvent) {
      if (event.ctrlKey || event.metaKey) return;
      const inField = isField(event.target);
      const digit = event.altKey ? /^Digit([1-9])$/.exec(event.code)?.[1] : undefined;
      const letter = event.altKey ? event.code.replace(/^Key/, "").toLowerCase() : event.key.toLowerCase();
      const isHelp = event.key === "?" || (event.altKey && event.code === "Slash");
      if (digit) actions.goTo(Number(digit) - 1);
      else if (inField && !event.altKey) return;
      else if (isHelp) actions.help();
      else if (letter === "u") actions.units();
      else if (letter === "w") actions.working();
      else return;
      event.preventDefault();
    }
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [actions]);
}
