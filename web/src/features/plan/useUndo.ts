import { useState } from "react";
import { useNavigate } from "react-router";
import type { Plan, Units } from "../../api/client";
import type { Action } from "./acting";
import { stopOf } from "./places";
import { historyPage } from "./queries";

/** Undo and redo: each says what it did, and goes to where that is seen. */
export function useUndo(runId: number, units: Units, act: (action: Action) => Promise<Plan | null>) {
  const navigate = useNavigate();
  const [told, setTold] = useState({ text: "", revision: -1 });

  async function back(kind: "undo" | "redo") {
    const plan = await act({ kind });
    if (plan === null) return;
    // What it did stands in the history, as its last sentence.
    const [last] = await historyPage(runId, units, null)
      .then((page) => page.entries)
      .catch(() => []);
    if (last?.revision !== plan.revision) return;
    setTold({ text: `${last.text.charAt(0).toUpperCase()}${last.text.slice(1)}.`, revision: plan.revision });
    const stop = stopOf(last.path, plan);
    if (stop !== null) void navigate(`/runs/${runId}/${stop}`);
  }
  return {
    undo: () => void back("undo"),
    redo: () => void back("redo"),
    /** What was undone, for as long as nothing else was done. */
    told: (revision: number | undefined) => (told.revision === revision ? told.text : ""),
  };
}
