import { describe, expect, it } from "vitest";
import { dress } from "./dress";

describe("dress", () => {
  it.each([
    ["F_t*d / 2000", "F_t · d / 2000"],
    ["sqrt(a**2 + b**2)", "√(a² + b²)"],
    ["k * b * h**(1 - m)", "k · b · h ^ (1 − m)"],
    ["60/(2*pi) * sqrt(x)", "60 / (2 · π) · √(x)"],
    ["1 - (-2.5)", "1 − (−2.5)"],
    ["min(n_max, 1000*v)", "min(n_max, 1000 · v)"],
  ])("%s", (formula, dressed) => {
    expect(dress(formula)).toBe(dressed);
  });
});
