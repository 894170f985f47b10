import { useEffect, useMemo, useRef } from "react";

const SWIPE_PX = 70;

/** A finger drawn across goes a step on or back. */
export function useSwipe(onStep: (by: 1 | -1) => void) {
  const from = useRef<{ x: number; y: number } | null>(null);
  return useMemo(
    () => ({
      onTouchStart: (e: React.TouchEvent) => {
        const [touch] = Array.from(e.touches);
        from.current = touch && e.touches.length === 1 ? { x: touch.clientX, y: touch.clientY } : null;
      },
      onTouchEnd: (e: React.TouchEvent) => {
        const [touch] = Array.from(e.changedTouches);
        if (!from.current || !touch) return;
        const [dx, dy] = [touch.clientX - from.current.x, touch.clientY - from.current.y];
        from.current = null;
        if (Math.abs(dx) > SWIPE_PX && Math.abs(dx) > 2 * Math.abs(dy)) onStep(dx < 0 ? 1 : -1);
      },
    }),
    [onStep],
  );
}

/** Arrows go a step on or back, outside of a field. */
export function useArrows(onStep: (by: 1 | -1) => void) {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const at = e.target as HTMLElement | null;
      if (
        at?.closest("input, textarea, [role=group], [role=radiogroup]") ||
        e.altKey ||
        e.ctrlKey ||
        e.metaKey
      )
        return;
      if (e.key === "ArrowRight") onStep(1);
      if (e.key === "ArrowLeft") onStep(-1);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [onStep]);
}
