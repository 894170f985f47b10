import { select } from "d3-selection";
import { type ZoomBehavior, type ZoomTransform, zoom, zoomIdentity, zoomTransform } from "d3-zoom";
import type { Size } from "./useSize";
import type { View, Zooming } from "./view";

const CLOSEST = 12;

/** A finger on the fitted drawing scrolls the page; closer up, or with two, it moves the drawing. */
function isMeant(this: HTMLElement, event: MouseEvent | TouchEvent | WheelEvent): boolean {
  if ("touches" in event) return event.touches.length > 1 || zoomTransform(this).k > 1;
  return event.button === 0 || event.type === "wheel";
}

/**
 * Wheel, pinch and dragging on a drawing of a size in px, and what keys and buttons do to it. It reaches down to
 * `bottom`, and is looked at as wide as shows all of it.
 */
export function zooming(
  node: HTMLElement,
  { width, height }: Size,
  bottom: number,
  onView: (view: View) => void,
): Zooming {
  const frame: [[number, number], [number, number]] = [
    [0, 0],
    [width, height],
  ];
  const made: ZoomBehavior<HTMLElement, unknown> = zoom<HTMLElement, unknown>()
    .extent(frame)
    .translateExtent([
      [0, 0],
      [width, bottom],
    ]) // never lost beyond the edge
    .scaleExtent([height / bottom, CLOSEST])
    .filter(isMeant)
    .on("zoom", ({ transform: { k, x, y } }: { transform: ZoomTransform }) => onView({ k, x, y }));
  const target = select<HTMLElement, unknown>(node);
  target.call(made).on("dblclick.zoom", null);
  made.translateBy(target, 0, 0); // a picture that has become smaller keeps what is in it
  return {
    by: (factor) => made.scaleBy(target, factor),
    move: (dx, dy) => made.translateBy(target, dx / zoomTransform(node).k, dy / zoomTransform(node).k),
    fit: () => made.transform(target, zoomIdentity),
    end: () => {
      target.on(".zoom", null);
    },
  };
}
