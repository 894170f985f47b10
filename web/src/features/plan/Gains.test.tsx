import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { GainFound } from "../../api/client";
import { plan } from "../../tests/plan";
import { Gains } from "./Gains";
import * as settling from "./settling";

const OF = { runId: 1, units: "metric" as const, setup: "s1", revision: 4 };

function found(key: string, more: Partial<GainFound> = {}): { key: string; answer: GainFound } {
  const answer = {
    revision: 4,
    key,
    label: key,
    gains: true,
    minutes: 1,
    saves_min: 0.5,
    saves_h: 2,
    why_not: "",
    ...more,
  };
  return { key: `question of ${key}`, answer };
}

function show(answers: Record<string, Partial<GainFound>>) {
  vi.spyOn(settling, "gainIdeas").mockResolvedValue(Object.keys(answers).map((key) => ({ key, label: key })));
  vi.spyOn(settling, "gainOf").mockImplementation(async (_, key) => found(key, answers[key]));
  const onDo = vi.fn(async () => plan());
  render(<Gains of={OF} mayTake onDo={onDo} />);
  return { onDo, user: userEvent.setup() };
}

describe("Gains", () => {
  beforeEach(() => vi.restoreAllMocks());

  it("tries one change after the other, and puts the one that saves most first", async () => {
    const { user } = show({ deeper: { saves_min: 0.2 }, "hard jaws": { saves_min: 1.3, saves_h: 5.2 } });
    await user.click(screen.getByRole("button", { name: "Try other ways to hold it" }));
    expect(await screen.findByText("−1.30 min")).toBeInTheDocument();
    expect(screen.getByText(/5.2 h over the run/)).toBeInTheDocument();
    expect(screen.getAllByRole("listitem").map((li) => li.querySelector("button")?.textContent)).toEqual([
      "hard jaws",
      "deeper",
    ]);
  });

  it("takes one by a press, with what was settled for it", async () => {
    const { onDo, user } = show({ deeper: {} });
    await user.click(screen.getByRole("button", { name: "Try other ways to hold it" }));
    await user.click(await screen.findByRole("button", { name: "deeper" }));
    expect(onDo).toHaveBeenCalledWith({
      kind: "gain",
      setup: "s1",
      idea: "deeper",
      question: "question of deeper",
      base: 4,
    });
  });

  it("says why the others gain nothing", async () => {
    const { user } = show({ centre: { gains: false, saves_min: null, why_not: "its tool runs into it" } });
    await user.click(screen.getByRole("button", { name: "Try other ways to hold it" }));
    expect(await screen.findByText("Nothing that was tried is quicker.")).toBeInTheDocument();
    await user.click(screen.getByText("1 tried without a gain"));
    expect(screen.getByText("its tool runs into it")).toBeInTheDocument();
  });

  it("offers nothing that was found for an earlier draft", async () => {
    const { user } = show({ deeper: { revision: 3 } });
    await user.click(screen.getByRole("button", { name: "Try other ways to hold it" }));
    expect(await screen.findByRole("button", { name: "deeper" })).toBeDisabled();
  });
});
