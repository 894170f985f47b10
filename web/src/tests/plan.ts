import type { Answer, Fact, Help, Note, Part, Plan, Question, Scene, Step, Stop } from "../api/client";

/** A fact for tests; what is not given is a plain entered quantity. */
export function fact(name: string, more: Partial<Fact> = {}): Fact {
  return {
    name,
    label: name,
    path: `facts.${name}`,
    editable: true,
    group: "",
    kind: "quantity",
    value: null,
    text: "1.00",
    edit_text: "1",
    typed: null,
    unit: "mm",
    source: "print",
    help: "",
    basis: "entered",
    optional: false,
    options: null,
    pin_path: null,
    pinned: false,
    proposed: false,
    ...more,
  };
}

/** A step of working. */
export const STEP: Step = {
  symbol: "F_c",
  label: "Centrifugal force",
  formula: "z * S * ω**2",
  substituted: "3 * 0.1 * 100**2",
  value: "3 000",
  unit: "N",
  source: "derived: method",
  basis: "typical",
  symbols: { z: "number of jaws", S: "moment of the jaws" },
};

export function answer(name: string, more: Partial<Answer> = {}): Answer {
  return {
    name,
    label: name,
    prefix: "",
    number: "811",
    unit: "rpm",
    below: "",
    bar: null,
    ...more,
  };
}

export function note(level: Note["level"], text: string): Note {
  return { level, code: text, text };
}

export function help(label: string, more: Partial<Help> = {}): Help {
  return {
    label,
    path: "setups.s1.clamp_rpm",
    value: 800,
    outcome: "cap 811 rpm",
    settles: true,
    takable: true,
    takes_out: false,
    ...more,
  };
}

/** The headings of facts, each its own words. */
function groups(facts: readonly Fact[]) {
  return [...new Set(facts.map((f) => f.group).filter(Boolean))].map((g) => ({ key: g, title: g }));
}

export function stop(name: string, more: Partial<Stop> = {}): Stop {
  return {
    key: name,
    name,
    side: null,
    setup: null,
    title: name[0]?.toUpperCase() + name.slice(1),
    heading: `What ${name} says`,
    state: "settled",
    line: `${name} line`,
    facts: [],
    answers: [],
    notes: [],
    lists: [],
    procedures: [],
    headings: groups(more.facts ?? []),
    offers: [],
    lacks: [],
    program: null,
    checks: [],
    panels: [],
    links: [],
    problems: [],
    ...more,
  };
}

/** A stop of a side. */
export function side(name: string, index: number, more: Partial<Stop> = {}): Stop {
  const setup = `s${index + 1}`;
  return stop(name, { key: `${name}-${setup}`, side: index, setup, ...more });
}

export function sideOf(index: number, more: Partial<Plan["sides"][number]> = {}): Plan["sides"][number] {
  return {
    index,
    id: `s${index + 1}`,
    title: `Side ${index + 1}`,
    end: "flange end",
    verdict: "settled",
    carry: [
      { name: "pressure", label: "Gauge", text: "28.0 bar", warning: null },
      { name: "clamp", label: "Clamp", text: "600 rpm", warning: null },
      { name: "bore", label: "Bore Ø", text: "84.00 mm", warning: null },
      { name: "depth", label: "Deep", text: null, warning: null },
    ],
    proposed: 0,
    ...more,
  };
}

export function scene(more: Partial<Scene> = {}): Scene {
  return {
    shapes: [],
    dimensions: [],
    labels: [],
    words: ["Half-section."],
    ...more,
  };
}

export function plan(more: Partial<Plan> = {}): Plan {
  return {
    run: {
      id: 1,
      drawing_number: "LH-2041",
      name: "Seal carrier",
      units: "metric",
      machine: "Lathe 3",
      quantity: 240,
      setup: "Side 2, flange end",
      revision: 0,
      changed_at: "2026-11-25T14:02:00Z",
      put_away: false,
      released: false,
      place: "planning",
      placed_at: null,
      placed_by: "",
    },
    revision: 0,
    moment: "0",
    moved: [],
    view: "",
    parts: [],
    units: "metric",
    verdict: "settled",
    may_edit: true,
    undo: false,
    redo: false,
    release: null,
    rules: { number: 1, today: 1, changes: [], moves: [], money: false },
    at: null,
    stops: [stop("part"), side("hold", 0), side("force", 0)],
    sides: [sideOf(0)],
    ...more,
  };
}

/** A part of a plan that holds the page of a stop, its digest made of a word. */
export function part(name: string, digest: string, more: Partial<Part> = {}): Part {
  return { name, digest, ...more };
}

/** A question as it stands; answered where an answer is given. */
export function question(answer: unknown = null, more: Partial<Question> = {}): Question {
  const state = answer === null ? "waiting" : "done";
  return {
    key: "q1",
    kind: "check",
    state,
    told: "",
    done: 0,
    of: 0,
    before: 0,
    answer,
    problem: null,
    ...more,
  } as Question;
}
