import { useLayoutEffect, useRef, useState } from "react";

const PADDING = 34; // of the slip, above and below

/**
 * The room that a stop has: each opens at its top, and where what the slip says fits beside the picture, the facts have
 * the whole width below both. Once it does not, it stays so until another stop is opened or the divider moved, so that
 * nothing jumps while one types.
 */
export function useRoom(stop: string | undefined, share: number) {
  const body = useRef<HTMLElement>(null);
  const slip = useRef<HTMLDivElement>(null);
  const lower = useRef<HTMLDivElement>(null);
  const [fits, setFits] = useState(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another stop is another page
  useLayoutEffect(() => {
    for (const scrolls of [lower.current, slip.current?.parentElement, document.scrollingElement])
      scrolls?.scrollTo?.(0, 0);
  }, [stop]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another stop has another slip
  useLayoutEffect(() => {
    const [frame, said] = [body.current, slip.current];
    if (!frame || !said || !("ResizeObserver" in globalThis)) return;
    const isIn = () => said.offsetHeight + PADDING <= (frame.clientHeight * share) / 100;
    setFits(isIn());
    const watcher = new ResizeObserver(() => {
      if (!isIn()) setFits(false);
    });
    watcher.observe(frame);
    watcher.observe(said);
    return () => watcher.disconnect();
  }, [stop, share]);
  return { body, slip, lower, fits };
}
