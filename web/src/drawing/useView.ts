import { select } from "d3-selection";
import { type ZoomBehavior, type ZoomTransform, zoom, zoomIdentity, zoomTransform } from "d3-zoom";
import { type KeyboardEvent, type RefObject, useEffect, useRef, useState } from "react";
import type { Projection } from "./project";
import type { Size } from "./useSize";

const CLOSEST = 12;
const STEP = 1.25;
const MOVE = 40; // px, by an arrow key

type Behavior = ZoomBehavior<HTMLElement, unknown>;

/** The fitted projection as it is looked at. */
export function seen(fit: Projection, view: ZoomTransform): Projection {
  return {
    x: (mm) => view.applyX(fit.x(mm)),
    y: (mm) => view.applyY(fit.y(mm)),
    scale: fit.scale * view.k,
  };
}

const ARROWS: ReadonlyMap<string, readonly [number, number]> = new Map([
  ["ArrowLeft", [MOVE, 0]],
  ["ArrowRight", [-MOVE, 0]],
  ["ArrowUp", [0, MOVE]],
  ["ArrowDown", [0, -MOVE]],
]);

/** A finger on the fitted drawing scrolls the page; closer up, or with two, it moves the drawing. */
function isMeant(this: HTMLElement, event: MouseEvent | TouchEvent | WheelEvent): boolean {
  if ("touches" in event) return event.touches.length > 1 || zoomTransform(this).k > 1;
  return event.button === 0 || event.type === "wheel";
}

/** Looking closer at a drawing: by wheel, pinch and dragging, and by keys while it has the focus. */
export function useView(element: RefObject<HTMLElement | null>, size: Size) {
  const [view, setView] = useState<ZoomTransform>(zoomIdentity);
  const behavior = useRef<Behavior | null>(null);
  const { width, height } = size;
  useEffect(() => {
    const node = element.current;
    if (!node || width === 0) return;
    const frame: [[number, number], [number, number]] = [
      [0, 0],
      [width, height],
    ];
    const made: Behavior = zoom<HTMLElement, unknown>()
      .extent(frame)
      .translateExtent(frame) // never lost beyond the edge
      .scaleExtent([1, CLOSEST])
      .filter(isMeant)
      .on("zoom", ({ transform }: { transform: ZoomTransform }) => setView(transform));
    const target = select<HTMLElement, unknown>(node);
    target.call(made).on("dblclick.zoom", null);
    made.translateBy(target, 0, 0); // a picture that has become smaller keeps what is in it
    behavior.current = made;
    return () => {
      target.on(".zoom", null);
    };
  }, [element, width, height]);

  function change(how: (made: Behavior, target: ReturnType<typeof select<HTMLElement, unknown>>) => void) {
    if (behavior.current && element.current)
      how(behavior.current, select<HTMLElement, unknown>(element.current));
  }
  const by = (factor: number) => change((made, target) => made.scaleBy(target, factor));
  const closer = () => by(STEP);
  const wider = () => by(1 / STEP);
  const toFit = () => change((made, target) => made.transform(target, zoomIdentity));

  function onKeyDown(event: KeyboardEvent<Element>) {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const arrow = ARROWS.get(event.key);
    if (arrow) change((made, target) => made.translateBy(target, arrow[0] / view.k, arrow[1] / view.k));
    else if (event.key === "+" || event.key === "=") closer();
    else if (event.key === "-") wider();
    else if (event.key === "0") toFit();
    else return;
    event.preventDefault();
  }
  return { view, closer, wider, fit: toFit, onKeyDown };
}
