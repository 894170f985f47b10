import { type KeyboardEvent, type RefObject, useEffect, useRef, useState } from "react";
import type { Projection } from "./project";
import type { Size } from "./useSize";
import type { View, Zooming } from "./view";

export const FIT: View = { k: 1, x: 0, y: 0 };
const STEP = 1.25;
const MOVE = 40; // px, by an arrow key

/** The fitted projection as it is looked at. */
export function seen(fit: Projection, { k, x, y }: View): Projection {
  return { x: (mm) => fit.x(mm) * k + x, y: (mm) => fit.y(mm) * k + y, scale: fit.scale * k };
}

const ARROWS: ReadonlyMap<string, readonly [number, number]> = new Map([
  ["ArrowLeft", [MOVE, 0]],
  ["ArrowRight", [-MOVE, 0]],
  ["ArrowUp", [0, MOVE]],
  ["ArrowDown", [0, -MOVE]],
]);

/** Looking closer at a drawing: by wheel, pinch and dragging, and by keys while it has the focus. */
export function useView(element: RefObject<HTMLElement | null>, size: Size, bottom = size.height) {
  const [view, setView] = useState<View>(FIT);
  const held = useRef<Zooming | null>(null);
  const { width, height } = size;
  useEffect(() => {
    const node = element.current;
    if (!node || width === 0) return;
    let gone = false;
    // Loaded beside the drawing, which is there without it, and stays where the server has gone away.
    const nothing = () => undefined;
    void import("./zooming").then(({ zooming }) => {
      if (!gone) held.current = zooming(node, { width, height }, bottom, setView);
    }, nothing);
    return () => {
      gone = true;
      held.current?.end();
      held.current = null;
    };
  }, [element, width, height, bottom]);

  const closer = () => held.current?.by(STEP);
  const wider = () => held.current?.by(1 / STEP);
  const toFit = () => held.current?.fit();

  function onKeyDown(event: KeyboardEvent<Element>) {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const arrow = ARROWS.get(event.key);
    if (arrow) held.current?.move(...arrow);
    else if (event.key === "+" || event.key === "=") closer();
    else if (event.key === "-") wider();
    else if (event.key === "0") toFit();
    else return;
    event.preventDefault();
  }
  const isWidest = view.k <= height / bottom;
  return { view, isWidest, closer, wider, fit: toFit, onKeyDown };
}
