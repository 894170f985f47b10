import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { client } from "../../api/client";
import { CalculatorsScreen } from "./CalculatorsScreen";

const field = (name: string, more: object = {}) => ({
  name,
  label: name,
  help: "",
  kind: "quantity",
  required: true,
  many: false,
  unit: "mm",
  options: {},
  when: {},
  fields: null,
  ...more,
});
const LIST = {
  groups: [["size", "Set and run"]],
  calculators: [
    {
      name: "drift",
      group: "size",
      title: "Drift",
      summary: "How a size drifts.",
      fields: [
        field("low"),
        field("inside", { kind: "flag", required: false }),
        field("plug", { when: { inside: [false] }, required: false }),
        field("sizes", { many: true }),
        field("points", {
          kind: "group",
          many: true,
          fields: [field("rpm", { unit: "rpm" }), field("grip", { unit: "N" })],
        }),
      ],
      example: { low: 1, sizes: [5, 6], points: [{ rpm: 0, grip: 9 }] },
    },
  ],
};
const ANSWER = {
  answers: [{ name: "offset", label: "Add to the offset", unit: "mm", text: "−0.012 mm" }],
  notes: [{ level: "caution", code: "noise", text: "It is noise." }],
  working: [
    {
      symbol: "m",
      label: "Slope",
      formula: "a/b",
      substituted: "1/2",
      symbols: { a: "rise" },
      value: 0.51234567,
      unit: "mm",
      source: "derived",
    },
  ],
  given: { low: 1, inside: false, sizes: [5, 6], points: [{ rpm: 0, grip: 9 }] },
  shown: { low: "1", inside: false, plug: "", sizes: ["5", "6"], points: [{ rpm: "0", grip: "9" }] },
  scene: null,
  graph: null,
};
const TAKEN = {
  revision: 7,
  release: null,
  taken: [
    { words: "Side 1 · Force", given: { low: 2, sizes: [1], points: [] }, paths: { low: "setups.s1.low" } },
  ],
};
const done = (data: unknown) => ({ data, response: new Response(null, { status: 200 }) }) as never;
const refused = (errors: object[]) =>
  ({
    error: { errors, title: "Wrong", type: "", status: 422 },
    response: new Response(null, { status: 422 }),
  }) as never;

function show(path = "/calculators/drift", post: () => never = () => done(ANSWER)) {
  vi.spyOn(client, "GET").mockImplementation((async (at: string) =>
    at === "/api/runs"
      ? done({ rows: [{ id: 4, name: "Seal carrier", drawing_number: "LH-2041" }] })
      : at.includes("/from/")
        ? done(TAKEN)
        : done(LIST)) as never);
  const asked = vi.spyOn(client, "POST").mockImplementation((async () => post()) as never);
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter initialEntries={[path]}>
        <Routes>
          <Route path="/calculators/:name" element={<CalculatorsScreen tools={null} />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  const last = () => (asked.mock.lastCall?.[1] as unknown as { body: unknown } | undefined)?.body;
  return { user: userEvent.setup(), asked, last };
}

describe("CalculatorsScreen", () => {
  beforeEach(() => vi.restoreAllMocks());

  it("opens with its example answered, its figure large and its working below", async () => {
    const { last } = show();
    const answer = await screen.findByRole("region", { name: "Answer" });
    expect(answer).toHaveTextContent("Add to the offset−0.012 mm");
    expect(answer).toHaveTextContent("It is noise.");
    expect(screen.getByRole("region", { name: "Working" })).toHaveTextContent("0.512346 mm");
    expect(screen.getByLabelText("What the symbols stand for")).toHaveTextContent("rise");
    expect(last()).toEqual({ given: LIST.calculators[0]?.example, units: "metric" });
    expect(screen.getByLabelText("low, mm")).toHaveValue("1");
    expect(screen.getByLabelText("sizes, mm, one a line")).toHaveValue("5\n6");
  });

  it("asks again while one types, and hides what does not matter", async () => {
    const { user, last } = show();
    const low = await screen.findByLabelText("low, mm");
    await user.clear(low);
    await user.type(low, "1/2 in");
    await vi.waitFor(() => expect(last()).toMatchObject({ given: { low: "1/2 in" } }));
    expect(screen.getByLabelText("plug, mm")).toBeInTheDocument();
    await user.click(
      within(screen.getByRole("radiogroup", { name: "inside" })).getByRole("radio", { name: "yes" }),
    );
    expect(screen.queryByLabelText("plug, mm")).toBeNull();
  });

  it("takes rows as a sheet copies them, and rows out", async () => {
    const { user, last } = show();
    const cell = await screen.findByLabelText("rpm, row 1");
    fireEvent.paste(cell, { clipboardData: { getData: () => "0\t46\n800\t42\n" } });
    await vi.waitFor(() =>
      expect(last()).toMatchObject({
        given: {
          points: [
            { rpm: "0", grip: "46" },
            { rpm: "800", grip: "42" },
          ],
        },
      }),
    );
    await user.click(screen.getByRole("button", { name: "Take out row 1" }));
    await vi.waitFor(() => expect(last()).toMatchObject({ given: { points: [{ rpm: "800", grip: "42" }] } }));
    await user.click(screen.getByRole("button", { name: "Add a row" }));
    expect(screen.getByLabelText("grip, row 2")).toHaveValue("");
  });

  it("tells what is wrong at its field and its line, and keeps the last answer", async () => {
    let wrong = false;
    const { user } = show("/calculators/drift", () =>
      wrong
        ? refused([
            { field: "low", message: "Give less than 5." },
            { field: "sizes.1", message: "“x” is not a figure." },
            { field: "points.0.rpm", message: "Give 0 or more." },
          ])
        : done(ANSWER),
    );
    await screen.findByRole("region", { name: "Answer" });
    wrong = true;
    await user.type(screen.getByLabelText("low, mm"), "9");
    expect(await screen.findByText("Give less than 5.")).toBeInTheDocument();
    expect(screen.getByText("Line 2: “x” is not a figure.")).toBeInTheDocument();
    expect(screen.getByText("Give 0 or more.")).toBeInTheDocument();
    expect(screen.getByText("The answer waits for what is marked.")).toBeInTheDocument();
    expect(screen.getByRole("region", { name: "Answer" })).toHaveAttribute("data-old");
    expect(screen.getByLabelText("sizes, mm, one a line")).toHaveValue("5\n6");
  });

  it("reads nothing anew when the units change", async () => {
    const { user, last } = show();
    await screen.findByRole("region", { name: "Answer" });
    await user.click(screen.getByRole("radio", { name: "inch" }));
    await vi.waitFor(() => expect(last()).toMatchObject({ units: "inch", given: { low: 1, sizes: [5, 6] } }));
  });

  it("opens with the figures of a link", async () => {
    const { last } = show(`/calculators/drift?given=${encodeURIComponent('{"low":3}')}&units=inch`);
    await screen.findByRole("region", { name: "Answer" });
    expect(last()).toEqual({ given: { low: 3 }, units: "inch" });
  });

  it("is filled from a plan and puts back what is changed and is its fact", async () => {
    const { user, asked } = show("/calculators/drift", () =>
      done({ ...ANSWER, revision: 8, given: { ...ANSWER.given, low: 4 } }),
    );
    await user.click(await screen.findByRole("button", { name: "Take from a plan" }));
    await user.click(await screen.findByRole("button", { name: "LH-2041 Seal carrier" }));
    await user.click(await screen.findByRole("button", { name: "Side 1 · Force" }));
    expect(screen.getByRole("region", { name: "From a plan" })).toHaveTextContent(
      "From LH-2041 Seal carrier, Side 1 · Force.",
    );
    await user.click(await screen.findByRole("button", { name: "Put 1 figure back into the plan" }));
    const edit = (asked.mock.calls as unknown as [string, object][]).find(([path]) =>
      path.endsWith("/edits"),
    )?.[1];
    expect(edit).toMatchObject({ body: { path: "setups.s1.low", value: 4, base_revision: 7 } });
    expect(await screen.findByText("The plan has them now.")).toBeInTheDocument();
  });
});
