import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

/** Keep what is opened under a query's name in this browser, so that it is there without network; whether it is. */
export function useKept(name: string): "kept" | "not yet" | "never" {
  const queries = useQueryClient();
  const may = "serviceWorker" in navigator;
  const [isKept, setKept] = useState(may && navigator.serviceWorker.controller !== null);
  useEffect(() => {
    if (!may) return;
    const taken = () => {
      setKept(true);
      // What was opened before it was there is read once more, through it.
      void queries.invalidateQueries({ queryKey: ["session"] });
      void queries.invalidateQueries({ queryKey: [name] });
    };
    navigator.serviceWorker.addEventListener("controllerchange", taken);
    navigator.serviceWorker.register("/keeper.js").catch(() => undefined); // without it, the network is needed
    return () => navigator.serviceWorker.removeEventListener("controllerchange", taken);
  }, [may, queries, name]);
  return isKept ? "kept" : may ? "not yet" : "never";
}
