import { describe, expect, it } from "vitest";
import type { Plan } from "../../api/client";
import { changesBetween } from "./changes";

function plan(bore: string, more: { units?: Plan["units"]; id?: number } = {}): Plan {
  const stop = {
    key: "jaws-1",
    name: "jaws",
    title: "Jaws",
    state: "settled",
    line: `Ø ${bore}`,
    facts: [{ name: "bore", text: bore }],
    answers: [{ name: "bore", number: bore }],
  };
  const whole = {
    run: { id: more.id ?? 1 },
    units: more.units ?? "metric",
    stops: [stop],
    sides: [
      {
        id: "s1",
        carry: [
          { name: "bore", text: bore },
          { name: "clamp", text: null },
        ],
      },
    ],
  };
  // Only what the comparison reads; the whole wire shape would hide what matters here.
  return whole as unknown as Plan;
}

describe("changesBetween", () => {
  it("names every figure that moved with what it was", () => {
    const moved = changesBetween(plan("84.00"), plan("80.00"));
    expect(Object.fromEntries(moved)).toEqual({
      "fact:jaws-1:bore": "84.00",
      "answer:jaws-1:bore": "84.00",
      "stop:jaws-1": "Ø 84.00",
      "carry:s1:bore": "84.00",
    });
  });

  it("finds nothing in equal plans, other units or another run", () => {
    expect(changesBetween(plan("84.00"), plan("84.00")).size).toBe(0);
    expect(changesBetween(plan("84.00"), plan("3.307", { units: "inch" })).size).toBe(0);
    expect(changesBetween(plan("84.00"), plan("80.00", { id: 2 })).size).toBe(0);
  });
});
