/** Every colour and size of the application. Components use these names and nothing else. */

/** Light by default: ink on paper. */
const light = {
  sheet: "#f5f2ea",
  card: "#fbf9f4",
  ink: "#1a2024",
  soft: "#565c5e",
  hairline: "#cbc5b7",
  act: "#0b625c",
  point: "#a9681a",
  pointInk: "#8a5212",
  caution: "#7a5600",
  stop: "#9b2c1c",
  steel: "#e6ded2",
  partFill: "#dfe8e5",
  jawFill: "#f3eee2",
  masterFill: "#ece6d8",
  shade: "rgb(0 0 0 / 18%)",
  cover: "rgb(26 32 36 / 35%)",
} as const;

/** For dim shops: chalk on slate. The same names, so that nothing else knows of it. */
const dark: Record<keyof typeof light, string> = {
  sheet: "#1b1f21",
  card: "#232829",
  ink: "#eae6dc",
  soft: "#a9ada8",
  hairline: "#474d4e",
  act: "#6cc5bb",
  point: "#d9963f",
  pointInk: "#e5ad62",
  caution: "#dcb458",
  stop: "#f08b78",
  steel: "#34393a",
  partFill: "#22393a",
  jawFill: "#2c302f",
  masterFill: "#33342f",
  shade: "rgb(0 0 0 / 55%)",
  cover: "rgb(0 0 0 / 55%)",
};

export const sets = { light, dark } as const;
export type SetName = keyof typeof sets;

type Colour = keyof typeof light;

/** A colour of the current set, as CSS. */
export function colour(name: Colour): string {
  return `var(--${name})`;
}

/** Distances in steps of 4 px. */
export function space(steps: number): string {
  return `${steps * 4}px`;
}

export const face = {
  plain: '"Plex Sans", "DejaVu Sans", sans-serif',
  narrow: '"Plex Sans Condensed", "DejaVu Sans Condensed", sans-serif',
} as const;

export const type = {
  label: "0.9375rem",
  small: "0.875rem",
  body: "0.9375rem",
  title: "1rem",
  run: "1.0625rem",
  answer: "2.25rem",
  /** Read at arm's length, at the machine. */
  hand: "1.25rem",
  handTitle: "2.25rem",
  handAnswer: "2.75rem",
} as const;

export const size = {
  header: "3.25rem",
  rail: "13rem",
  slip: "18.75rem",
  foldedSlip: "15.5rem",
  touch: "44px",
  hand: "56px",
  line: "1px",
  thick: "2px",
  mark: "18px",
  radius: "2px",
} as const;

/** What a printer is told, whatever the screen is dressed in. */
export const paper = {
  ink: "#000",
  sheet: "#fff",
  size: "12pt",
  head: "14pt",
  title: "22pt",
  line: "0.3mm",
} as const;

/**
 * Below the first width the head leaves out what stands elsewhere; below the second the slip folds under the drawing;
 * below the third all is one column.
 * In em, so that large text folds the page as a narrow screen does.
 */
export const fold = {
  desk: "(max-width: 88em)",
  tablet: "(max-width: 68.75em)",
  phone: "(max-width: 43.75em)",
} as const;
