import { createContext, type ReactNode, useContext, useEffect, useState } from "react";

/** Something on the page in view that the find box can jump to. */
export type LocalHit = { key: string; title: string; detail: string; to: string };

type Store = { hits: readonly LocalHit[]; put: (hits: readonly LocalHit[]) => void };

const NOTHING: readonly LocalHit[] = [];
const Context = createContext<Store>({ hits: NOTHING, put: () => {} });

/** Lets a page say what can be found on it. */
export function LocalHits({ children }: { children: ReactNode }) {
  const [hits, put] = useState(NOTHING);
  return <Context.Provider value={{ hits, put }}>{children}</Context.Provider>;
}

/** What the page in view offers to the find box. */
export function useLocalHits(): readonly LocalHit[] {
  return useContext(Context).hits;
}

/** Offer these while the page is shown. The list must keep its identity while nothing changes. */
export function useOfferHits(hits: readonly LocalHit[]): void {
  const { put } = useContext(Context);
  useEffect(() => {
    put(hits);
    return () => put(NOTHING);
  }, [hits, put]);
}
