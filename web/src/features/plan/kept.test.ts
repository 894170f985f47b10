import { describe, expect, it } from "vitest";
import type { Help, Part, Plan, PlanParts, Preview } from "../../api/client";
import { help, part, plan, side } from "../../tests/plan";
import {
  digests,
  draftOver,
  draftWithParts,
  type Kept,
  latest,
  shownOf,
  stopOf,
  taken,
  withParts,
} from "./kept";

const PATH = "setups.s1.force.pressure_bar";
const HELPS = "helps:force-s1";

const helps = (label: string): Help[] => [help(label)];
const told = (shown: { parts: ReadonlyMap<string, Part> }, name = HELPS) =>
  shown.parts.get(name)?.helps?.[0]?.label;

function sent(parts: Part[], more: Partial<Plan> = {}): Plan {
  return plan({ parts, moment: `${more.revision ?? 0} shelf`, ...more });
}

function preview(parts: Part[], more: Partial<Preview> = {}): Preview {
  const { run, revision, units, verdict, stops, sides } = plan();
  const seen = { run, revision, units, verdict, stops, sides, moved: [], view: "", path: PATH };
  return { ...seen, moment: "0 shelf", parts, ...more };
}

const late = (parts: Part[], more: Partial<PlanParts> = {}): PlanParts => ({
  revision: 0,
  moment: "0 shelf",
  path: null,
  parts,
  ...more,
});

const kept = (parts: Part[]): Kept => taken(undefined, sent(parts));

describe("a kept plan", () => {
  it("takes what is left out as equal from what it holds", () => {
    const first = kept([part(HELPS, "aa", { helps: helps("old") })]);
    const next = taken(first, sent([part(HELPS, "aa")], { revision: 1 }));
    expect(told(next)).toBe("old");
  });

  it("does not take a part that is equal to nothing it holds: it is asked for again", () => {
    const first = kept([part(HELPS, "aa", { helps: helps("old") })]);
    const next = taken(first, sent([part(HELPS, "bb")], { revision: 1 }));
    expect(next.parts.has(HELPS)).toBe(false);
  });

  it("shows nothing of before as what counts, and names it to the server", () => {
    const first = kept([part(HELPS, "aa", { helps: helps("old") })]);
    const next = taken(first, sent([], { revision: 1 }));
    expect(next.parts.size).toBe(0);
    expect(digests(next, () => true)).toEqual([`${HELPS}=aa`]);
    const shown = latest(shownOf(next, null), next, HELPS, (p) => p.helps);
    expect([shown.content?.[0]?.label, shown.isLate]).toEqual(["old", true]);
    expect(told(taken(next, sent([part(HELPS, "aa")], { revision: 1 })))).toBe("old");
  });

  it("keeps its parts while only another stop comes into view", () => {
    const first = kept([part(HELPS, "aa", { helps: helps("old") })]);
    const next = taken(first, sent([part("tables:force-s1", "cc", { tables: [] })]));
    expect([...next.parts.keys()].sort()).toEqual([HELPS, "tables:force-s1"]);
  });

  it("drops its parts where the shelf changed under the same draft", () => {
    const first = kept([part(HELPS, "aa", { helps: helps("old") })]);
    expect(taken(first, sent([], { moment: "0 other shelf" })).parts.size).toBe(0);
  });

  it("never goes back to an older draft", () => {
    const first = taken(undefined, sent([], { revision: 3 }));
    expect(taken(first, sent([], { revision: 2 }))).toBe(first);
  });

  it("holds nothing of another run or the other units", () => {
    const first = kept([part(HELPS, "aa", { helps: helps("old") })]);
    const inch = taken(first, sent([part(HELPS, "aa")], { units: "inch" }));
    expect(inch.parts.size).toBe(0);
    expect(digests(inch, () => true)).toEqual([]);
  });

  it("drops late parts of a moment that is gone, and those of a preview", () => {
    const now = taken(undefined, sent([], { revision: 2 }));
    const parts = [part(HELPS, "aa", { helps: helps("late") })];
    expect(withParts(now, late(parts))).toBe(now);
    expect(withParts(now, late(parts, { moment: "2 shelf", path: PATH }))).toBe(now);
    expect(told(withParts(now, late(parts, { moment: "2 shelf" })))).toBe("late");
  });
});

describe("a preview", () => {
  const first = kept([part(HELPS, "aa", { helps: helps("kept") })]);

  it("lies over the kept plan, and takes equal parts from it alone", () => {
    const one = draftOver(first, preview([part(HELPS, "bb", { helps: helps("28 bar") })]), "28");
    const two = draftOver(first, preview([part(HELPS, "aa")]), "28.1");
    expect(one && told(one)).toBe("28 bar");
    expect(two && told(two)).toBe("kept");
    // What the preview before held is not held for the next one.
    const three = draftOver(first, preview([part(HELPS, "bb")]), "28.2");
    expect(three?.parts.has(HELPS)).toBe(false);
  });

  it("is dropped where it was made over another plan", () => {
    expect(draftOver(first, preview([], { moment: "1 shelf" }), "28")).toBeNull();
  });

  it("takes late parts of its own entry only", () => {
    const draft = draftOver(first, preview([]), "28");
    if (!draft) throw new Error("a draft");
    const parts = [part(HELPS, "cc", { helps: helps("for 28") })];
    const mine = late(parts, { path: PATH });
    expect(draftWithParts(draft, first, mine, "27")).toBe(draft); // an answer to what was typed before
    expect(draftWithParts(draft, first, late(parts, { path: "other" }), "28")).toBe(draft);
    expect(draftWithParts(draft, first, late(parts), "28")).toBe(draft); // of the kept plan
    expect(draftWithParts(draft, first, { ...mine, moment: "1 shelf" }, "28")).toBe(draft);
    expect(told(draftWithParts(draft, first, mine, "28"))).toBe("for 28");
  });

  it("shows the stops of the preview and none of the kept plan's pages", () => {
    const { key, name, state, title, setup, notes, problems, ...page } = side("force", 0);
    const whole = kept([part("stop:force-s1", "aa", { stop: page })]);
    const lines = [{ key, name, state, line: "over the cap", title, setup, side: 0, notes, problems }];
    const draft = draftOver(whole, preview([], { stops: lines }), "28");
    const shown = shownOf(whole, draft);
    expect(shown.plan.stops[0]?.line).toBe("over the cap");
    expect(stopOf(shown, shown.plan.stops[0])).toBeUndefined();
    expect(stopOf(shownOf(whole, null), lines[0])?.heading).toBe("What force says");
  });
});
