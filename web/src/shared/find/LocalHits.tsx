import { createContext, type ReactNode, useContext, useEffect, useState } from "react";

/** Something on the page in view that the find box can jump to. */
export type LocalHit = { key: string; title: string; detail: string; to: string };

/** What a page offers to the find box: what it knows by itself, and the plan whose facts the server knows. */
export type Offered = {
  hits: readonly LocalHit[];
  plan: { run: number; units: "metric" | "inch" } | null;
};

type Store = { offered: Offered; put: (offered: Offered) => void };

const NOTHING: Offered = { hits: [], plan: null };
const Context = createContext<Store>({ offered: NOTHING, put: () => {} });

/** Lets a page say what can be found on it. */
export function LocalHits({ children }: { children: ReactNode }) {
  const [offered, put] = useState(NOTHING);
  return <Context.Provider value={{ offered, put }}>{children}</Context.Provider>;
}

/** What the page in view offers to the find box. */
export function useOffered(): Offered {
  return useContext(Context).offered;
}

/** Offer this while the page is shown. It must keep its identity while nothing changes. */
export function useOfferHits(offered: Offered): void {
  const { put } = useContext(Context);
  useEffect(() => {
    put(offered);
    return () => put(NOTHING);
  }, [offered, put]);
}
