import { type ComponentType, createElement, type ReactNode, useEffect, useState } from "react";

/**
 * A part that is opened seldom, and loaded when it is; `meanwhile` stands in its place until then.
 *
 * React's own way holds a part back for 300 ms once something else has stood in its place: at the machine that is most
 * of what opening a card takes. A part that is there already is drawn at once.
 */
export function seldom<P extends object>(
  load: () => Promise<ComponentType<P>>,
  meanwhile: ReactNode,
): ComponentType<P> {
  let part: ComponentType<P> | null = null;
  let loading: Promise<ComponentType<P>> | null = null;
  // biome-ignore lint/correctness/noComponentHookFactories: called where a module begins, once for each part
  return function Seldom(props: P) {
    const [found, setFound] = useState<ComponentType<P> | null>(() => part);
    const [wrong, setWrong] = useState<Error | null>(null);
    useEffect(() => {
      if (found) return;
      let here = true;
      loading ??= load();
      loading.then(
        (one) => {
          part = one;
          if (here) setFound(() => one);
        },
        (error: unknown) => {
          loading = null; // it is tried again where it is opened again
          if (here)
            setWrong(
              error instanceof Error ? error : new Error("This part of the application did not come."),
            );
        },
      );
      return () => {
        here = false;
      };
    }, [found]);
    if (wrong) throw wrong;
    return found ? createElement(found, props) : meanwhile;
  };
}
