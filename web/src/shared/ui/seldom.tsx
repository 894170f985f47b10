import { type ComponentType, createElement, type ReactNode, useEffect, useState } from "react";
import styled from "styled-components";
import { colour, face, space, type } from "./theme";

const AGAIN_MS = 2_000;

const Late = styled.p`
  padding: ${space(3)} ${space(4.5)};
  font: 400 ${type.label} ${face.narrow};
  color: ${colour("caution")};
`;

/**
 * A part that is opened seldom, and loaded when it is; `meanwhile` stands in its place until then.
 *
 * React's own way holds a part back for 300 ms once something else has stood in its place: at the machine that is most
 * of what opening a card takes. A part that is there already is drawn at once. One that does not come, since the server
 * has gone away, says so in its own place and is asked for again: what stands beside it works on.
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
    const [failed, setFailed] = useState(0);
    useEffect(() => {
      if (found) return;
      let here = true;
      const ask = () => {
        loading ??= load();
        loading.then(
          (one) => {
            part = one;
            if (here) setFound(() => one);
          },
          () => {
            loading = null;
            if (here) setFailed(failed + 1);
          },
        );
      };
      const later = failed ? setTimeout(ask, AGAIN_MS) : undefined;
      if (!failed) ask();
      return () => {
        here = false;
        clearTimeout(later);
      };
    }, [found, failed]);
    if (found) return createElement(found, props);
    if (!failed) return meanwhile;
    return (
      <Late role="status">
        This part of the screen has not come: the server does not answer. It is asked for again.
      </Late>
    );
  };
}
