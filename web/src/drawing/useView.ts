import { type KeyboardEvent, type PointerEvent, useRef, useState, type WheelEvent } from "react";
import type { Projection } from "./project";
import type { Size } from "./useSize";

/** How a drawing is looked at: times closer than fitted, and moved by how many px. */
export type View = { zoom: number; dx: number; dy: number };

export const FIT: View = { zoom: 1, dx: 0, dy: 0 };
const CLOSEST = 12;
const STEP = 1.25;
const MOVE = 40; // px, by an arrow key

/** The view closer by a factor, with the point (px from the middle) staying where it is. Never wider than fitted. */
export function zoomed(view: View, by: number, at: { x: number; y: number }, size: Size): View {
  const zoom = Math.min(CLOSEST, Math.max(1, view.zoom * by));
  const k = zoom / view.zoom;
  return held({ zoom, dx: at.x - (at.x - view.dx) * k, dy: at.y - (at.y - view.dy) * k }, size);
}

/** The view moved, with the drawing never lost beyond the edge. */
export function moved(view: View, dx: number, dy: number, size: Size): View {
  return held({ ...view, dx: view.dx + dx, dy: view.dy + dy }, size);
}

function held(view: View, size: Size): View {
  const most = (side: number) => (side / 2) * (view.zoom - 1);
  const within = (d: number, limit: number) => Math.min(limit, Math.max(-limit, d)) + 0; // never −0
  return { zoom: view.zoom, dx: within(view.dx, most(size.width)), dy: within(view.dy, most(size.height)) };
}

/** The fitted projection as it is looked at. */
export function seen(fit: Projection, view: View, size: Size): Projection {
  const [cx, cy] = [size.width / 2, size.height / 2];
  return {
    x: (mm) => cx + (fit.x(mm) - cx) * view.zoom + view.dx,
    y: (mm) => cy + (fit.y(mm) - cy) * view.zoom + view.dy,
    scale: fit.scale * view.zoom,
  };
}

const MIDDLE = { x: 0, y: 0 };
const closer = (view: View, size: Size) => zoomed(view, STEP, MIDDLE, size);
const wider = (view: View, size: Size) => zoomed(view, 1 / STEP, MIDDLE, size);

const KEYS = new Map<string, (view: View, size: Size) => View>([
  ["+", closer],
  ["=", closer],
  ["-", wider],
  ["0", () => FIT],
  ["ArrowLeft", (v, size) => moved(v, MOVE, 0, size)],
  ["ArrowRight", (v, size) => moved(v, -MOVE, 0, size)],
  ["ArrowUp", (v, size) => moved(v, 0, MOVE, size)],
  ["ArrowDown", (v, size) => moved(v, 0, -MOVE, size)],
]);

type Spot = { x: number; y: number };

/** Looking closer at a drawing: wheel and pinch, dragging, and keys while it has the focus. */
export function useView(size: Size) {
  const [view, setView] = useState(FIT);
  const fingers = useRef(new Map<number, Spot>());

  function spot(event: { clientX: number; clientY: number; currentTarget: Element }): Spot {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - box.left - box.width / 2, y: event.clientY - box.top - box.height / 2 };
  }

  function onPointerMove(event: PointerEvent<Element>) {
    const before = fingers.current.get(event.pointerId);
    if (!before) return;
    const now = spot(event);
    const other = [...fingers.current].find(([id]) => id !== event.pointerId)?.[1];
    fingers.current.set(event.pointerId, now);
    if (!other) {
      setView((v) => moved(v, now.x - before.x, now.y - before.y, size));
      return;
    }
    // Two fingers: their distance zooms about the point between them, their middle moves.
    const apart = (p: Spot) => Math.hypot(p.x - other.x, p.y - other.y);
    const between = { x: (now.x + other.x) / 2, y: (now.y + other.y) / 2 };
    const by = apart(now) / Math.max(1, apart(before));
    setView((v) => moved(zoomed(v, by, between, size), (now.x - before.x) / 2, (now.y - before.y) / 2, size));
  }

  function lift(event: PointerEvent<Element>) {
    fingers.current.delete(event.pointerId);
  }

  function onKeyDown(event: KeyboardEvent<Element>) {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const step = KEYS.get(event.key);
    if (!step) return;
    event.preventDefault();
    setView((v) => step(v, size));
  }

  return {
    view,
    closer: () => setView((v) => closer(v, size)),
    wider: () => setView((v) => wider(v, size)),
    fit: () => setView(FIT),
    handlers: {
      onWheel: (event: WheelEvent<Element>) => {
        const at = spot(event);
        // A pinch on a touch pad comes as a wheel with Ctrl, in small steps.
        const by = Math.exp(-event.deltaY * (event.ctrlKey ? 0.01 : 0.0015));
        setView((v) => zoomed(v, by, at, size));
      },
      onPointerDown: (event: PointerEvent<Element>) => {
        // A finger on the fitted drawing scrolls the page; closer up, or with two, it moves the drawing.
        fingers.current.set(event.pointerId, spot(event));
        if (event.pointerType === "mouse") event.currentTarget.setPointerCapture(event.pointerId);
      },
      onPointerMove,
      onPointerUp: lift,
      onPointerCancel: lift,
      onLostPointerCapture: lift,
      onKeyDown,
    },
  };
}
