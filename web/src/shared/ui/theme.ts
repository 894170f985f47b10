/** Every colour and size of the application. Components use these names and nothing else. */

export const colours = {
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

type Colour = keyof typeof colours;

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
} as const;

export const size = {
  header: "52px",
  rail: "208px",
  slip: "300px",
  touch: "44px",
  line: "1px",
  thick: "2px",
  mark: "18px",
  radius: "2px",
} as const;

/** Below this width the slip folds under the drawing; below the second all is one column. */
export const fold = { tablet: "(max-width: 1100px)", phone: "(max-width: 700px)" } as const;
