import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { client, type Session } from "../../api/client";
import { ApprenticeScreen } from "./ApprenticeScreen";
import { ExerciseScreen } from "./ExerciseScreen";
import { FromWorkScreen } from "./FromWorkScreen";
import { PracticeScreen } from "./PracticeScreen";

const done = (data: unknown) => ({ data, response: new Response(null, { status: 200 }) }) as never;
const subject = (kind: string, more: object = {}) => ({
  kind,
  group: "jaws",
  title: kind,
  levels: 2,
  level: 1,
  answers: 0,
  right: 0,
  dangerous: 0,
  due: null,
  is_due: false,
  ...more,
});
const PRACTICE = {
  groups: [["jaws", "Jaws"]],
  subjects: [
    subject("ring", { answers: 4, right: 2, dangerous: 1, due: "2026-11-28T06:00:00Z", is_due: true }),
    subject("paper"),
  ],
  next: "ring",
  hidden: false,
};
const PEOPLE = [
  {
    name: "ann",
    role: "setter",
    hidden: false,
    answers: 9,
    right: 7,
    dangerous: 1,
    last: null,
    subjects: { ring: 1 },
  },
  {
    name: "ben",
    role: "operator",
    hidden: true,
    answers: 0,
    right: 0,
    dangerous: 0,
    last: null,
    subjects: {},
  },
];
const CHOICE = {
  ask: "What do the jaws close on?",
  known: [{ label: "Bore", value: "Ø84.00 mm" }],
  kind: "choice",
  options: [
    { value: "a", label: "Ring A" },
    { value: "b", label: "Ring B" },
  ],
  label: "",
  unit: "",
  scene: null,
  graph: null,
};
const FIGURE = {
  ...CHOICE,
  ask: "How much grip is left?",
  kind: "figure",
  options: [],
  label: "Grip left",
  unit: "kN",
};
const exercise = (of: object, seed = 7) => ({
  kind: "ring",
  title: "Which ring",
  seed,
  level: 1,
  levels: 2,
  generator: 1,
  told: "",
  exercise: of,
});
const GRADE = {
  verdict: "dangerous",
  why: "The tool runs into it.",
  right: "Ring B",
  rule: "The tool needs room.",
  machine: "The tool runs into it.",
  working: [
    {
      symbol: "d",
      label: "Room",
      formula: "a+b",
      substituted: "1+2",
      value: "3",
      unit: "mm",
      source: "derived",
      basis: "derived",
      symbols: {},
    },
  ],
};

function show(
  path: string,
  of: { exercise?: object; role?: Session["role"]; refused?: boolean; gone?: boolean } = {},
) {
  const get = vi.spyOn(client, "GET").mockImplementation((async (at: string) => {
    if (at === "/api/practice") return done(PRACTICE);
    if (at === "/api/practice/people") return done(PEOPLE);
    if (at === "/api/runs")
      return done({ rows: [{ id: 4, name: "Seal carrier", drawing_number: "LH-2041" }] });
    if (at === "/api/practice/from/{run_id}")
      return done({
        run: "LH-2041 Seal carrier",
        release: null,
        moments: [{ name: "chuck-grip", title: "Grip at a pressure", words: "Force", place: 0 }],
      });
    if (of.gone)
      return {
        error: { title: "There is no such exercise.", type: "", status: 404 },
        response: new Response(null, { status: 404 }),
      };
    return done(exercise(of.exercise ?? CHOICE));
  }) as never);
  const post = vi.spyOn(client, "POST").mockImplementation((async (at: string) => {
    if (of.refused)
      return {
        error: {
          errors: [{ field: "given", message: "“much” is not a figure." }],
          title: "",
          type: "",
          status: 422,
        },
        response: new Response(null, { status: 422 }),
      };
    return done(at.includes("/from/") ? GRADE : { grade: GRADE, subject: subject("ring") });
  }) as never);
  const session = { name: "ann", role: of.role ?? "setter", demo: false, may_look_as: false } as Session;
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <MemoryRouter initialEntries={[path]}>
        <Routes>
          <Route path="/practice" element={<PracticeScreen session={session} tools={null} />} />
          <Route path="/practice/from/:runId" element={<FromWorkScreen tools={null} />} />
          <Route path="/practice/:kind" element={<ExerciseScreen tools={null} />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  const body = () => (post.mock.lastCall?.[1] as unknown as { body: object } | undefined)?.body;
  return { user: userEvent.setup(), get, post, body };
}

describe("PracticeScreen", () => {
  beforeEach(() => vi.restoreAllMocks());

  it("leads to what is due, and tells how far one is", async () => {
    const { user, body } = show("/practice");
    expect(await screen.findByRole("link", { name: "What is due: ring" })).toHaveAttribute(
      "href",
      "/practice/ring",
    );
    expect(screen.getByRole("row", { name: /ring 1 of 2 4 2 1 due now/ })).toBeInTheDocument();
    expect(screen.getByRole("row", { name: /paper 1 of 2 not yet practised/ })).toBeInTheDocument();
    expect(await screen.findByRole("link", { name: "LH-2041 Seal carrier" })).toBeInTheDocument();
    expect(screen.queryByRole("region", { name: "Who has practised" })).toBeNull();
    await user.click(screen.getByRole("checkbox", { name: "Hide my progress from the owner" }));
    expect(body()).toEqual({ hidden: true });
  });

  it("shows an owner who has practised, and what is hidden as hidden", async () => {
    show("/practice", { role: "owner" });
    const people = await screen.findByRole("region", { name: "Who has practised" });
    expect(within(people).getByRole("row", { name: /ann, setter 1 9 7 1 never/ })).toBeInTheDocument();
    expect(within(people).getByRole("row", { name: "ben, operator hidden" })).toBeInTheDocument();
  });
});

describe("ExerciseScreen", () => {
  beforeEach(() => vi.restoreAllMocks());

  it("grades what was chosen, says what it would have done, and goes on", async () => {
    const { user, body, get } = show("/practice/ring");
    await screen.findByText("What do the jaws close on?");
    expect(screen.getByRole("button", { name: "Answer" })).toBeDisabled();
    await user.click(screen.getByRole("radio", { name: "Ring A" }));
    await user.click(screen.getByRole("button", { name: "Answer" }));
    const grade = await screen.findByRole("alert", { name: "Grade" });
    expect(grade).toHaveTextContent(
      "Dangerous.The tool runs into it.Right is: Ring BThe rule: The tool needs room.",
    );
    expect(body()).toMatchObject({ kind: "ring", seed: 7, level: 1, given: "a", units: "metric" });
    expect(screen.queryByRole("button", { name: "Answer" })).toBeNull();
    const before = get.mock.calls.length;
    await user.click(within(grade).getByRole("button", { name: "Next" }));
    await vi.waitFor(() => expect(get.mock.calls.length).toBeGreaterThan(before));
    expect(await screen.findByRole("button", { name: "Answer" })).toBeInTheDocument();
  });

  it("asks for a figure in its unit and tells at the field what is none", async () => {
    const { user } = show("/practice/ring?seed=7&level=1&version=1", { exercise: FIGURE, refused: true });
    await user.type(await screen.findByLabelText("Grip left, kN"), "much{Enter}");
    expect(await screen.findByText("“much” is not a figure.")).toBeInTheDocument();
    expect(screen.getByRole("button", { name: "Answer" })).toBeInTheDocument();
  });

  it("opens the exercise of a link, and keeps it when the units change", async () => {
    const { user, get } = show("/practice/ring?seed=7&level=2&version=1&units=inch");
    await screen.findByText("What do the jaws close on?");
    const asked = () =>
      (get.mock.calls as unknown as [string, { params: { query: object } }][]).findLast(([at]) =>
        at.includes("exercises"),
      )?.[1].params.query;
    expect(asked()).toEqual({ seed: 7, level: 2, generator: 1, units: "inch" });
    await user.click(screen.getByRole("radio", { name: "mm" }));
    await vi.waitFor(() => expect(asked()).toEqual({ seed: 7, level: 1, generator: 1, units: "metric" }));
  });
});

describe("what is there no more", () => {
  beforeEach(() => vi.restoreAllMocks());

  it("says that a link leads to no exercise, and where there are some", async () => {
    show("/practice/ring?seed=7", { gone: true });
    expect(await screen.findByText("There is no such exercise.")).toBeInTheDocument();
    expect(screen.getByRole("link", { name: "All subjects" })).toHaveAttribute("href", "/practice");
  });

  it("says that a moment is gone with the plan as it was, and keeps the others", async () => {
    const { user } = show("/practice/from/4", { gone: true });
    await user.click(await screen.findByRole("button", { name: "Grip at a pressure · Force" }));
    expect(await screen.findByRole("alert")).toHaveTextContent("take another of its moments");
    await user.click(screen.getByRole("button", { name: "All moments" }));
    expect(screen.getByRole("button", { name: "Grip at a pressure · Force" })).toBeInTheDocument();
  });
});

describe("FromWorkScreen", () => {
  beforeEach(() => vi.restoreAllMocks());

  it("asks about a moment of a plan, and grades it", async () => {
    const { user, body } = show("/practice/from/4", { exercise: FIGURE });
    await user.click(await screen.findByRole("button", { name: "Grip at a pressure · Force" }));
    await user.type(await screen.findByLabelText("Grip left, kN"), "80{Enter}");
    expect(await screen.findByRole("alert", { name: "Grade" })).toHaveTextContent("Right is: Ring B");
    expect(body()).toEqual({ given: "80", units: "metric" });
    expect(screen.queryByRole("button", { name: "Next" })).toBeNull(); // it was the last
  });
});

const STANDS = {
  shown: ["20.0 bar", "60 mm", "1500 rpm"].map((value) => ({ label: value, value })),
  figures: [
    { label: "Grip at this speed", value: "41 kN" },
    { label: "Standing still", value: "54 kN" },
  ],
  told: ["Less than a third is left."],
  curve: null,
  wall: null,
  unit: "mm",
  cuts: [] as object[],
  blue: null,
  done: false,
  words: "Cut the jaws.",
};

function bench(answer: (tapers: string[]) => object) {
  const post = vi.spyOn(client, "POST").mockImplementation((async (
    _: string,
    { body }: { body: { tapers: string[] } },
  ) => {
    const found = answer(body.tapers);
    return "errors" in found
      ? {
          error: { ...found, title: "", type: "", status: 422 },
          response: new Response(null, { status: 422 }),
        }
      : done(found);
  }) as never);
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <ApprenticeScreen tools={null} />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  const body = () =>
    (post.mock.lastCall?.[1] as unknown as { body: Record<string, unknown> } | undefined)?.body;
  return { user: userEvent.setup(), body };
}

describe("ApprenticeScreen", () => {
  beforeEach(() => vi.restoreAllMocks());

  it("answers to the sliders by keys, and to the grease", async () => {
    const { user, body } = bench(() => STANDS);
    expect(await screen.findByText("41 kN")).toBeInTheDocument();
    expect(screen.getByText("Less than a third is left.")).toBeInTheDocument();
    screen.getByRole("slider", { name: "Gauge pressure" }).focus();
    await user.keyboard("{ArrowRight}");
    await vi.waitFor(() => expect(body()).toMatchObject({ pressure_bar: 20.5 }));
    await user.click(screen.getByRole("radio", { name: "long ago" }));
    await vi.waitFor(() => expect(body()).toMatchObject({ grease: "long", pressure_bar: 20.5 }));
  });

  it("keeps every cut with what the blue showed, and begins anew with new jaws", async () => {
    const { user, body } = bench((tapers) => ({
      ...STANDS,
      cuts: tapers.map((taper) => ({ taper, shows: "blue at the mouth" })),
      done: tapers.length === 2,
      words: tapers.length === 2 ? "Even after 2 cuts." : "Not even yet.",
    }));
    for (const taper of ["0.04", "3 thou"]) {
      await user.type(await screen.findByLabelText("Taper, on diameter, mm"), taper);
      await user.click(screen.getByRole("button", { name: "Cut the jaws" }));
    }
    expect(await screen.findByText("Even after 2 cuts.")).toBeInTheDocument();
    expect(body()?.tapers).toEqual(["0.04 mm", "3 thou"]);
    await user.click(screen.getByRole("button", { name: "A new set of jaws" }));
    await vi.waitFor(() => expect(body()?.tapers).toEqual([]));
  });

  it("counts no cut that cannot be read", async () => {
    const { user, body } = bench((tapers) => {
      const wrong = tapers.indexOf("wide");
      if (wrong < 0) return { ...STANDS, cuts: tapers.map((taper) => ({ taper, shows: "even" })) };
      return { errors: [{ field: `tapers.${wrong}`, message: "“wide” is not a figure." }] };
    });
    await user.type(await screen.findByLabelText("Taper, on diameter, mm"), "wide{Enter}");
    expect(await screen.findByText("“wide” is not a figure.")).toBeInTheDocument();
    await user.type(screen.getByLabelText("Taper, on diameter, mm"), "0.05{Enter}");
    await vi.waitFor(() => expect(body()?.tapers).toEqual(["0.05 mm"]));
  });
});
