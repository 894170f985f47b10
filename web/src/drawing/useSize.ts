import { type RefObject, useLayoutEffect, useState } from "react";

export type Size = { width: number; height: number };

/** How many times larger than usual the person reads: 2 for text at 200 %. */
export function textScale(): number {
  const size = Number.parseFloat(getComputedStyle(document.documentElement).fontSize);
  return Number.isFinite(size) ? size / 16 : 1;
}

/** The size of an element in px, kept current. */
export function useSize(element: RefObject<HTMLElement | null>): Size {
  const [size, setSize] = useState<Size>({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const target = element.current;
    if (!target) return;
    const measure = () => setSize({ width: target.clientWidth, height: target.clientHeight });
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(target);
    return () => watcher.disconnect();
  }, [element]);
  return size;
}
