import { type RefObject, useEffect, useState } from "react";

/** How far below the view something is counted as coming into it: it is there before it is scrolled to. */
const AHEAD = "600px";

/** Whether an element has come into view since `of` changed, in what scrolls it; at once where nothing tells. */
export function useInView(element: RefObject<Element | null>, of: string): boolean {
  const [seen, setSeen] = useState("");
  useEffect(() => {
    const node = element.current;
    if (!node || !("IntersectionObserver" in globalThis)) {
      const timer = setTimeout(() => setSeen(of), 0);
      return () => clearTimeout(timer);
    }
    const observer = new IntersectionObserver(
      (entries) => {
        if (entries.some((e) => e.isIntersecting)) setSeen(of);
      },
      { root: node.closest("[data-scrolls]"), rootMargin: `0px 0px ${AHEAD} 0px` },
    );
    observer.observe(node);
    return () => observer.disconnect();
  }, [element, of]);
  return seen === of;
}
