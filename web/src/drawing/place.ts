import type { Size } from "./useSize";

/** Where a text stands, in px of its picture. */
export type Box = { x: number; y: number; width: number; height: number };

const GAP = 2;
const STEP = 5;
const AROUND = [
  [0, -1],
  [0, 1],
  [1, 0],
  [-1, 0],
  [1, -1],
  [-1, -1],
  [1, 1],
  [-1, 1],
] as const;

/** Whether two texts keep clear of each other. */
export function apart(a: Box, b: Box): boolean {
  return (
    a.x + a.width + GAP <= b.x ||
    b.x + b.width + GAP <= a.x ||
    a.y + a.height + GAP <= b.y ||
    b.y + b.height + GAP <= a.y
  );
}

const isIn = (box: Box, size: Size) =>
  box.x >= 0 && box.y >= 0 && box.x + box.width <= size.width && box.y + box.height <= size.height;

const isSeen = (box: Box, size: Size) =>
  box.x < size.width && box.y < size.height && box.x + box.width > 0 && box.y + box.height > 0;

/**
 * A text to be placed: its spots, the best first, how far it may stand from the first where none is free [px], and what
 * it stands clear of where it can: lines that would go through it.
 */
export type Wanted = { spots: readonly Box[]; reach?: number; lines?: readonly Box[] };

/**
 * A place for each text, none on another: the first of its spots that is free, else the nearest free place around the
 * first. One whose first spot lies beyond the picture's edge, and one that finds no room at all, has none: what it says
 * stands among the facts too.
 */
export function place(texts: readonly Wanted[], size: Size, taken: readonly Box[] = []): (Box | null)[] {
  const standing = [...taken];
  const isFree = (box: Box) => isIn(box, size) && standing.every((other) => apart(box, other));
  return texts.map(({ spots, reach = Math.max(size.width, size.height), lines = [] }) => {
    const [first] = spots;
    if (!first || !isSeen(first, size)) return null;
    const isClear = (box: Box) => lines.every((line) => apart(box, line));
    const free = spots.filter(isFree);
    const found = free.find(isClear) ?? free[0] ?? nearest(first, reach, isFree);
    if (found) standing.push(found);
    return found;
  });
}

function nearest(first: Box, reach: number, isFree: (box: Box) => boolean): Box | null {
  for (let far = STEP; far < reach; far += STEP) {
    for (const [x, y] of AROUND) {
      const box = { ...first, x: first.x + x * far, y: first.y + y * far };
      if (isFree(box)) return box;
    }
  }
  return null;
}
