/** How a drawing is looked at: k times closer than fitted, and moved by px. */
export type View = { k: number; x: number; y: number };

/** What keys and buttons do to it, and its end. */
export type Zooming = {
  by: (factor: number) => void;
  move: (dx: number, dy: number) => void;
  fit: () => void;
  end: () => void;
};
