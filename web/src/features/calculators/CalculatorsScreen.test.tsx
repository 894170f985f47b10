import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { Refused } from "../../api/client";
import { CalculatorsScreen } from "./CalculatorsScreen";
import type { CalcField, Calculator } from "./queries";
import * as queries from "./queries";

function field(name: string, more: Partial<CalcField> = {}): CalcField {
  return { name, label: name, help: "", kind: "quantity", required: true, many: false, unit: "mm", ...more };
}

const FEED: Calculator = {
  name: "feed-window",
  summary: "The feeds of three schools.",
  fields: [
    field("corner"),
    field("wiper", { kind: "flag", required: false, unit: undefined as never }),
    field("breaker", { kind: "group", required: false, fields: [field("feed_min"), field("feed_max")] }),
  ],
};
const ANSWER = {
  answers: [
    { name: "feed_max_mm_rev", label: "Feed to", unit: "mm/rev", text: "0.282 mm/rev" },
    { name: "bound_by", label: "Bound by", unit: "", text: "the finish" },
  ],
  working: [
    {
      symbol: "f_max",
      label: "Largest feed",
      formula: "min(f_r2, f_Ra)",
      substituted: "min(0.5, 0.28)",
      symbols: { f_Ra: "most feed by finish" },
      value: 0.28251234,
      unit: "mm/rev",
      source: "typical",
    },
  ],
  notes: [{ level: "caution", code: "clash", text: "The chip may not break." }],
};

function show(ask: object) {
  vi.spyOn(queries, "useCalculators").mockReturnValue({ data: [FEED], isError: false } as never);
  const mutate = vi.fn();
  vi.spyOn(queries, "useCalculate").mockReturnValue({
    mutate,
    data: undefined,
    error: null,
    isPending: false,
    ...ask,
  } as never);
  render(
    <MemoryRouter initialEntries={["/calculators/feed-window"]}>
      <Routes>
        <Route path="/calculators/:name" element={<CalculatorsScreen tools={null} />} />
      </Routes>
    </MemoryRouter>,
  );
  return { mutate, user: userEvent.setup() };
}

describe("CalculatorsScreen", () => {
  beforeEach(() => vi.restoreAllMocks());

  it("asks with what was entered, groups together, and leaves out what is empty", async () => {
    const { mutate, user } = show({});
    await user.type(screen.getByLabelText("corner, mm"), "1/32 in");
    await user.type(screen.getByLabelText("feed_min, mm"), "0.1");
    await user.click(screen.getByRole("button", { name: "Compute" }));
    expect(mutate).toHaveBeenCalledWith({
      body: { corner: "1/32 in", breaker: { feed_min: "0.1" } },
      units: "metric",
    });
  });

  it("leaves a group out where nothing of it is known", async () => {
    const { mutate, user } = show({});
    await user.type(screen.getByLabelText("corner, mm"), "0.8");
    await user.click(screen.getByRole("radio", { name: "yes" }));
    await user.click(screen.getByRole("button", { name: "Compute" }));
    expect(mutate).toHaveBeenCalledWith({ body: { corner: "0.8", wiper: true }, units: "metric" });
  });

  it("shows figures with their labels and units, and the working; other units are asked for", async () => {
    const { mutate, user } = show({ data: ANSWER });
    const answer = screen.getByRole("table", { name: "Answer" });
    expect(within(answer).getByRole("row", { name: /Feed to/ })).toHaveTextContent("0.282 mm/rev");
    expect(within(answer).getByRole("row", { name: /Bound by/ })).toHaveTextContent("the finish");
    expect(screen.getByRole("table", { name: "Working" })).toHaveTextContent(
      "min(f_r2, f_Ra) = min(0.5, 0.28)",
    );
    expect(screen.getByLabelText("What the symbols stand for")).toHaveTextContent("most feed by finish");
    expect(screen.getByText(/The chip may not break/)).toBeInTheDocument();
    await user.click(screen.getByRole("radio", { name: "inch" }));
    expect(mutate).toHaveBeenCalledWith({ body: {}, units: "inch" });
  });

  it("tells what is wrong at its field, a group's too", () => {
    const errors = [
      { field: "corner", message: "corner is missing." },
      { field: "breaker.feed_max", message: "This cannot be below." },
    ];
    show({ error: new Refused(422, { type: "", title: "", status: 422, errors }) });
    expect(screen.getAllByText("corner is missing.")).not.toHaveLength(0);
    expect(screen.getAllByText("This cannot be below.")).not.toHaveLength(0);
    expect(screen.queryByRole("table", { name: "Answer" })).toBeNull();
  });
});
