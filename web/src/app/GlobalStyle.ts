import { createGlobalStyle } from "styled-components";
import { colour, face, fold, sets, size, type } from "../shared/ui/theme";
import narrow400 from "./fonts/narrow-400.woff2";
import narrow600 from "./fonts/narrow-600.woff2";
import sans400 from "./fonts/sans-400.woff2";
import sans600 from "./fonts/sans-600.woff2";

function variables(set: Record<string, string>): string {
  return Object.entries(set)
    .map(([name, value]) => `--${name}: ${value};`)
    .join("\n");
}

function fontFace(family: string, weight: number, file: string): string {
  const source = `url("${file}") format("woff2")`;
  return `@font-face { font-family: "${family}"; font-weight: ${weight}; font-display: swap; src: ${source}; }`;
}

export const GlobalStyle = createGlobalStyle`
  ${fontFace("Plex Sans", 400, sans400)}
  ${fontFace("Plex Sans", 600, sans600)}
  ${fontFace("Plex Sans Condensed", 400, narrow400)}
  ${fontFace("Plex Sans Condensed", 600, narrow600)}
  :root { color-scheme: light; ${variables(sets.light)} }
  :root[data-set="dark"] { color-scheme: dark; ${variables(sets.dark)} }
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #app { height: 100%; margin: 0; }
  body {
    background: ${colour("sheet")};
    color: ${colour("ink")};
    font: 400 ${type.body}/1.35 ${face.plain};
    font-variant-numeric: tabular-nums;
  }
  h1, h2, h3, p, ol, ul, dl, dd, figure { margin: 0; padding: 0; }
  ol, ul { list-style: none; }
  a { color: ${colour("act")}; }
  button, input, textarea { font: inherit; color: inherit; }
  :focus-visible { outline: ${size.thick} solid ${colour("act")}; outline-offset: 2px; }
  @media (prefers-reduced-motion: reduce) { *, *::before, *::after { transition: none; animation: none; } }
  @media print { html, body, #app { height: auto; background: none; } }
  @media ${fold.phone} { html { scroll-padding-top: ${size.header}; } }
`;
