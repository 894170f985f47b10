import { useEffect } from "react";
import { keyPressed } from "../../shared/keys";

export type Shortcuts = {
  goTo: (index: number) => void;
  units: () => void;
  working: () => void;
  undo: () => void;
  redo: () => void;
  print: () => void;
  help: () => void;
};

export const SHORTCUT_LIST = [
  ["/", "find a stop, a fact, a run, something on the shelf"],
  ["u", "inch or metric"],
  ["w", "working of the stop's first answer"],
  ["z", "undo your last edit"],
  ["Shift+z", "redo what you undid"],
  ["p", "the card on paper: of the release, else of the draft"],
  ["?", "this list"],
  ["Enter", "keep what is typed, go to the next fact"],
  ["Escape", "put back what was there"],
  ["+  −  0", "on the drawing: closer, wider, fit; arrows move it"],
  ["←  →", "on the drawing of a cut at work: the cut before, the cut after"],
] as const;

/** Single letters never fire inside a field; there the same actions work with Alt. */
export function useShortcuts(actions: Shortcuts) {
  useEffect(() => {
    function onKey(event: KeyboardEvent) {
      const digit = event.altKey && !event.ctrlKey ? /^Digit([1-9])$/.exec(event.code)?.[1] : undefined;
      const key = keyPressed(event);
      if (digit) actions.goTo(Number(digit) - 1);
      else if (key === "?") actions.help();
      else if (key === "u") actions.units();
      else if (key === "w") actions.working();
      else if (key === "z") actions.undo();
      else if (key === "Z") actions.redo();
      else if (key === "p") actions.print();
      else return;
      event.preventDefault();
    }
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [actions]);
}
