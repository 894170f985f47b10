import { type RefObject, useEffect, useState } from "react";

/** Whether an element has come into view since `of` changed; at once where nothing tells. */
export function useInView(element: RefObject<Element | null>, of: string): boolean {
  const [seen, setSeen] = useState("");
  useEffect(() => {
    const node = element.current;
    if (!node || !("IntersectionObserver" in globalThis)) {
      const timer = setTimeout(() => setSeen(of), 0);
      return () => clearTimeout(timer);
    }
    const observer = new IntersectionObserver((entries) => {
      if (entries.some((e) => e.isIntersecting)) setSeen(of);
    });
    observer.observe(node);
    return () => observer.disconnect();
  }, [element, of]);
  return seen === of;
}
