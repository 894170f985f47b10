import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { type ComponentProps, useState } from "react";
import { describe, expect, it, vi } from "vitest";
import type { Fact, Settled } from "../../api/client";
import { fact, stop } from "../../tests/plan";
import { CutsTable } from "./CutsTable";

function of(id: string, name: string, text: string, more: Partial<Fact> = {}): Fact {
  const path = `setups.s1.cuts.${id}.${name}`;
  return fact(`cut_${id}_${name}`, { label: name, group: id, text, edit_text: text, path, ...more });
}

const computed = { path: null, editable: false };
const FACTS: Fact[] = [
  of("c1", "speed_m_min", "118", { label: "Cutting speed", unit: "m/min" }),
  of("c1", "feed_mm_rev", "0.300", { label: "Feed", unit: "mm/rev" }),
  of("c1", "rpm_here", "305", computed),
  of("c1", "top", "1 410", computed),
  of("c1", "near", "edge life 96 %", computed),
  of("c2", "speed_m_min", "120", { label: "Cutting speed", unit: "m/min" }),
  of("c2", "depth_mm", "2.10", { label: "Depth of cut", unit: "mm" }),
  of("c2", "passes", "9", computed),
  of("c2", "minutes", "2.86", computed),
];
const FOUND: Settled = {
  revision: 4,
  words: "5.9 min in cut",
  gains: true,
  cuts: [
    {
      id: "c2",
      name: "Rough",
      words: "",
      before: 2.86,
      after: 1.9,
      binds: "the grip at speed",
      without: 1.25,
      // biome-ignore lint/suspicious/noThenProperty: the wire's own word for what would bind then
      then: "the finish",
      gives_up: ["the breaker's depth"],
      tried: 100,
      gains: true,
      figures: "",
      would: { speed_m_min: "135", depth_mm: "2.10", count: "9", clamp_rpm: "" },
    },
  ],
};

function Shown(props: Omit<ComponentProps<typeof CutsTable>, "group" | "onPick">) {
  const [group, setGroup] = useState<string | undefined>("c1");
  return <CutsTable {...props} group={group} onPick={setGroup} />;
}

function show(more: Partial<ComponentProps<typeof CutsTable>> = {}) {
  const on = {
    onType: vi.fn(),
    onKeep: vi.fn(),
    onCancel: vi.fn(),
    onTryAgain: vi.fn(),
    onTakeTheirs: vi.fn(),
    onTakeMine: vi.fn(),
    onLight: vi.fn(),
  };
  const headings = [
    { key: "c1", title: "Face" },
    { key: "c2", title: "Rough" },
  ];
  const shown = stop("cuts", { facts: FACTS, headings });
  render(
    <div data-ledger>
      <Shown stop={shown} changes={new Map()} troubles={{}} settled={null} {...on} {...more} />
    </div>,
  );
  return { ...on, user: userEvent.setup() };
}

const row = (name: string) => within(screen.getByRole("row", { name: new RegExp(`^${name}`) }));

describe("CutsTable", () => {
  it("shows every cut in its row: how fast it turns, how deep in how many passes, what it is near to", () => {
    show();
    expect(row("Face").getByText("305–1 410")).toBeInTheDocument();
    expect(row("Face").getByText("edge life 96 %")).toBeInTheDocument();
    expect(row("Rough").getByText("× 9")).toBeInTheDocument();
    expect(row("Rough").getByText("2.86")).toBeInTheDocument();
  });

  it("edits a figure in place, and goes on to the next by Enter", async () => {
    const { onKeep, user } = show();
    const speed = screen.getByRole("textbox", { name: "Face: Cutting speed, m/min" });
    await user.click(speed);
    await user.clear(speed);
    await user.type(speed, "140{Enter}");
    expect(onKeep).toHaveBeenCalledWith("setups.s1.cuts.c1.speed_m_min", { text: "140" });
    expect(screen.getByRole("textbox", { name: "Face: Feed, mm/rev" })).toHaveFocus();
  });

  it("chooses the cut whose details stand below", async () => {
    const { user } = show();
    await user.click(screen.getByRole("button", { name: "Rough" }));
    expect(screen.getByRole("button", { name: "Rough" })).toHaveAttribute("aria-pressed", "true");
    expect(screen.getByRole("button", { name: "Face" })).toHaveAttribute("aria-pressed", "false");
  });

  it("lays what settling found beside what is planned, and only where that moves", () => {
    show({ settled: FOUND });
    expect(row("Rough").getByText("→ 135")).toBeInTheDocument();
    expect(row("Rough").getByText("→ 1.90")).toBeInTheDocument();
    expect(row("Rough").queryByText(/→ 2.10/)).toBeNull();
    expect(row("Rough").getByText("grip at speed (1.25 without)")).toBeInTheDocument();
    expect(row("Rough").getByText("then finish")).toBeInTheDocument();
    expect(row("Rough").getByText("gives up: the breaker's depth")).toBeInTheDocument();
  });

  it("tells under its row what is wrong with an entry of a cut that is not in view", () => {
    const path = "setups.s1.cuts.c2.depth_mm";
    const trouble = {
      path,
      entry: { text: "99" },
      kind: "refused" as const,
      message: "Give less.",
      units: "metric" as const,
      stop: "cuts",
    };
    show({ troubles: { [path]: trouble } });
    expect(screen.getByRole("alert")).toHaveTextContent("Give less.");
    expect(screen.getByRole("textbox", { name: "Rough: Depth of cut, mm" })).toHaveValue("99");
  });
});
