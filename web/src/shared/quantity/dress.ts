const FUNCTIONS: [RegExp, string][] = [
  [/\bsqrt\(/g, "√("],
  [/\bpi\b/g, "π"],
  [/\s*\*\*\s*2\b/g, "²"],
  [/\s*\*\*\s*3\b/g, "³"],
  [/\s*\*\*\s*/g, " ^ "],
  [/(?<=\S)\s*\*\s*(?=\S)/g, " · "],
  [/(?<=\S)\s*\/\s*(?=\S)/g, " / "],
  [/\s-\s/g, " − "],
  [/(^|[(\s·/])-(?=\d)/g, "$1−"],
];

/** A formula as the core writes it, dressed as a setter writes it: · for *, ² for **2, √ for sqrt. */
export function dress(formula: string): string {
  return FUNCTIONS.reduce((text, [pattern, sign]) => text.replace(pattern, sign), formula);
}
