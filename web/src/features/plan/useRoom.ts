import { useLayoutEffect, useRef, useState } from "react";
import { fold } from "../../shared/ui/theme";
import { LEAST } from "./Divider";

const PADDING = 34; // of the slip, above and below
/** How much more than it begins with a picture may take so that the slip fits beside it [% of the height]. */
const MORE = 15;
/** Eight facts by fingers, two beside each other, with their heading [rem]: the picture leaves a tablet so much. */
const FACTS = 19.5;

/** The most that the picture begins with [% of the height]. */
function most(height: number): number {
  const isTablet = globalThis.matchMedia?.(fold.tablet).matches ?? false;
  if (!isTablet || height === 0) return 100;
  const rem = Number.parseFloat(getComputedStyle(document.documentElement).fontSize);
  return Math.max(LEAST, Math.floor(100 - ((FACTS * rem) / height) * 100));
}

/**
 * The room that a stop has, in % of its height for the picture: what was chosen, else what it begins with or a little
 * more. Each stop opens at its top, and where what the slip says fits beside the picture, the facts have the whole
 * width below both. What the slip needs only grows until another stop is opened, so that nothing jumps while one types.
 */
export function useRoom(stop: string | undefined, chosen: number | undefined, begins: number) {
  const body = useRef<HTMLElement>(null);
  const slip = useRef<HTMLDivElement>(null);
  const lower = useRef<HTMLDivElement>(null);
  const [needs, setNeeds] = useState(Number.POSITIVE_INFINITY);
  const [height, setHeight] = useState(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another stop is another page
  useLayoutEffect(() => {
    for (const scrolls of [lower.current, slip.current?.parentElement, document.scrollingElement])
      scrolls?.scrollTo?.(0, 0);
  }, [stop]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another stop has another slip
  useLayoutEffect(() => {
    const [frame, said] = [body.current, slip.current];
    if (!frame || !said || !("ResizeObserver" in globalThis)) return;
    const share = () => Math.ceil(((said.offsetHeight + PADDING) / Math.max(1, frame.clientHeight)) * 100);
    setNeeds(share());
    const watcher = new ResizeObserver(() => {
      setHeight(frame.clientHeight);
      setNeeds((before) => Math.max(before, share()));
    });
    watcher.observe(frame);
    watcher.observe(said);
    return () => watcher.disconnect();
  }, [stop]);
  const fits = needs <= (chosen ?? begins + MORE);
  const begun = Math.min(fits ? Math.max(begins, needs) : begins, most(height));
  return { body, slip, lower, fits, share: chosen ?? begun };
}
