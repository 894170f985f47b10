import { textScale } from "./useSize";

export type Face = "plain" | "narrow";

/** px a letter takes at most on the average, at usual size, where nothing can be measured. */
const LETTER: Record<Face, number> = { plain: 8.4, narrow: 7.4 };
const SIZE = 15;
const ROOM = 1.03; // a face that comes a moment later than its words is not as wide

let pen: CanvasRenderingContext2D | null | undefined;

function penOf(): CanvasRenderingContext2D | null {
  if (pen === undefined)
    pen =
      typeof CanvasRenderingContext2D === "undefined"
        ? null
        : document.createElement("canvas").getContext("2d");
  return pen;
}

/** The height of a line of a picture's text [px]. */
export function textHeight(): number {
  return 18 * textScale();
}

/** How wide a text of a picture is [px], at its heaviest. */
export function textWidth(text: string, face: Face): number {
  const scale = textScale();
  const measured = penOf();
  if (!measured) return text.length * LETTER[face] * scale;
  const name = face === "plain" ? '"Plex Sans"' : '"Plex Sans Condensed"';
  measured.font = `600 ${SIZE * scale}px ${name}, sans-serif`;
  return measured.measureText(text).width * ROOM + 4;
}
