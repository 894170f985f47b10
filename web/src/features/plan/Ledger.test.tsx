import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { type ComponentProps, useState } from "react";
import { describe, expect, it, vi } from "vitest";
import type { Fact, PlanList, PlanTable } from "../../api/client";
import { fact, plan, stop } from "../../tests/plan";
import { Ledger } from "./Ledger";
import type { Trouble } from "./useEditing";

type More = {
  tables?: PlanTable[];
  isLate?: boolean;
  lists?: PlanList[];
  trouble?: Trouble | null;
  lit?: string;
  was?: [string, string];
};

/** The ledger with the heading in view kept beside it, as its screen does. */
function Shown(props: Omit<ComponentProps<typeof Ledger>, "picked" | "onPick">) {
  const [picked, setPicked] = useState<string | null>(null);
  return <Ledger {...props} picked={picked} onPick={setPicked} />;
}

function show(facts: Fact[], more: More = {}) {
  const on = {
    onType: vi.fn(),
    onKeep: vi.fn(),
    onCancel: vi.fn(),
    onTryAgain: vi.fn(),
    onTakeTheirs: vi.fn(),
    onTakeMine: vi.fn(),
    onLight: vi.fn(),
    onList: vi.fn(async () => plan()),
  };
  render(
    <Shown
      stop={stop("force", { facts, lists: more.lists ?? [] })}
      tables={{ content: more.tables, isLate: more.isLate ?? false }}
      revision={7}
      changes={new Map(more.was ? [more.was] : [])}
      lit={more.lit ?? null}
      troubles={more.trouble ? { [more.trouble.path]: more.trouble } : {}}
      {...on}
    />,
  );
  return { ...on, user: userEvent.setup() };
}

const row = (name: string) => document.querySelector<HTMLElement>(`[data-fact="${name}"]`) as HTMLElement;

function trouble(more: Partial<Trouble> = {}): Trouble {
  const refused = {
    path: "facts.depth",
    entry: { text: "99" },
    kind: "refused",
    message: "Lower it.",
  } as const;
  return { ...refused, units: "metric", stop: "force", ...more };
}

describe("Ledger", () => {
  it("shows label, value, unit and where it came from; what is typical wears its tag", () => {
    show([
      fact("friction", { path: null, text: "0.100", unit: "", source: "for the pair", basis: "typical" }),
    ]);
    const line = row("friction");
    expect(line).toHaveTextContent("friction0.100for the pair typical");
    expect(within(line).queryByRole("textbox")).toBeNull();
  });

  it("edits in place and goes to the next fact on Enter", async () => {
    const { user, onKeep } = show([fact("depth"), fact("length")]);
    const field = screen.getByLabelText("depth, mm");
    await user.click(field);
    await user.clear(field);
    await user.type(field, "20{Enter}");
    expect(onKeep).toHaveBeenCalledExactlyOnceWith("facts.depth", { text: "20" });
    expect(screen.getByLabelText("length, mm")).toHaveFocus();
  });

  it("asks yes or no, and chooses from a list", async () => {
    const seats = [
      { value: "floor", label: "the pocket floor" },
      { value: "none", label: "nothing" },
    ];
    const { user, onKeep } = show([
      fact("centre", { kind: "flag", value: false, text: "no" }),
      fact("seat", { kind: "choice", value: "floor", text: "the pocket floor", options: seats }),
    ]);
    await user.click(screen.getByRole("radio", { name: "yes" }));
    expect(onKeep).toHaveBeenLastCalledWith("facts.centre", { value: true });
    await user.click(screen.getByRole("button", { name: /seat/ }));
    await user.click(await screen.findByRole("option", { name: "nothing" }));
    expect(onKeep).toHaveBeenLastCalledWith("facts.seat", { value: "none" });
  });

  it("shows figures and no fields to who may only look", () => {
    const fixed = { editable: false };
    show([fact("depth", fixed), fact("centre", { kind: "flag", value: true, text: "yes", ...fixed })]);
    expect(screen.queryByRole("textbox")).toBeNull();
    expect(screen.queryByRole("radio")).toBeNull();
    expect(row("centre")).toHaveTextContent("yes");
  });

  it("marks what moved with what it was, and what was typed", () => {
    show([fact("depth"), fact("length", { typed: "1 7/16 in" })], { was: ["fact:force:depth", "22.00"] });
    expect(row("depth")).toHaveTextContent("was 22.00");
    expect(row("length")).toHaveTextContent("typed 1 7/16 in");
  });

  it("says at the field what to do, with the text still there", () => {
    show([fact("depth"), fact("length")], { trouble: trouble() });
    expect(within(row("depth")).getByRole("alert")).toHaveTextContent("Lower it.");
    expect(within(row("length")).queryByRole("alert")).toBeNull();
    expect(screen.getByLabelText("depth, mm")).toHaveValue("99");
  });

  it("offers to try again what was not kept", async () => {
    const { user, onTryAgain } = show([fact("depth")], { trouble: trouble({ kind: "unsent" }) });
    await user.click(screen.getByRole("button", { name: "Try again" }));
    expect(onTryAgain).toHaveBeenCalledOnce();
  });

  it("shows both values of a conflict and lets the person choose", async () => {
    const conflict = trouble({ kind: "conflict", message: "Changed.", theirs: "26" });
    const { user, onTakeMine, onTakeTheirs } = show([fact("depth")], { trouble: conflict });
    expect(row("depth")).toHaveTextContent("Theirs: 26");
    await user.click(screen.getByRole("button", { name: "keep theirs" }));
    await user.click(screen.getByRole("button", { name: "keep mine" }));
    expect(onTakeTheirs).toHaveBeenCalledOnce();
    expect(onTakeMine).toHaveBeenCalledExactlyOnceWith("facts.depth");
  });

  it("shows one cut at a time, and the one that is in trouble", async () => {
    const cuts = [fact("a", { group: "Face" }), fact("depth", { group: "Turn" }), fact("clamp")];
    const { user } = show(cuts);
    expect(row("a")).toBeInTheDocument();
    expect(row("clamp")).toBeInTheDocument();
    expect(row("depth")).toBeNull();
    await user.click(screen.getByRole("button", { name: "Turn" }));
    expect(row("depth")).toBeInTheDocument();
    expect(row("a")).toBeNull();
  });

  it("opens the cut whose entry was refused", () => {
    const cuts = [fact("a", { group: "Face" }), fact("depth", { group: "Turn" })];
    show(cuts, { trouble: trouble() });
    expect(within(row("depth")).getByRole("alert")).toBeInTheDocument();
  });

  it("lights the drawing for what is pointed at or being edited", async () => {
    const { user, onLight } = show([fact("depth")], { lit: "depth" });
    expect(row("depth")).toHaveAttribute("data-lit", "true");
    await user.hover(row("depth"));
    expect(onLight).toHaveBeenLastCalledWith("depth");
    await user.unhover(row("depth"));
    expect(onLight).toHaveBeenLastCalledWith(null);
    await user.click(screen.getByLabelText("depth, mm"));
    expect(onLight).toHaveBeenLastCalledWith("depth");
  });

  const cuts: PlanList = {
    path: "setups.s1.cuts",
    noun: "cut",
    named: "name",
    kind_label: "What it does",
    title: "Cuts",
    lines: null,
    items: ["Face", "Turn"].map((name) => ({ id: name, name, may_take_out: true })),
    may_add: true,
    ordered: true,
    kinds: [
      { value: "turn", label: "turning" },
      { value: "face", label: "facing" },
    ],
  };

  it("puts a cut in by name and kind, and shows it", async () => {
    const { user, onList } = show([fact("a", { group: "Face" })], { lists: [cuts] });
    await user.click(screen.getByRole("button", { name: "Put in a cut" }));
    await user.type(screen.getByLabelText("Name of the new cut"), "Skim");
    await user.click(screen.getByRole("button", { name: /What it does/ }));
    await user.click(await screen.findByRole("option", { name: "facing" }));
    await user.click(screen.getByRole("button", { name: "Put in" }));
    expect(onList).toHaveBeenCalledExactlyOnceWith({
      kind: "add",
      path: "setups.s1.cuts",
      name: "Skim",
      itemKind: "face",
    });
    expect(screen.queryByLabelText("Name of the new cut")).toBeNull();
  });

  it("takes out the cut in view, as it was when it was looked at", async () => {
    const facts = [fact("a", { group: "Face" }), fact("b", { group: "Turn" })];
    const { user, onList } = show(facts, { lists: [cuts] });
    await user.click(screen.getByRole("button", { name: "Turn" }));
    expect(screen.queryByRole("button", { name: "take out Face" })).toBeNull();
    await user.click(screen.getByRole("button", { name: "take out Turn" }));
    expect(onList).toHaveBeenCalledExactlyOnceWith({
      kind: "remove",
      path: "setups.s1.cuts.Turn",
      base: 7,
    });
  });

  it("keeps what stays in front, and changes no list for who may only look", () => {
    const items = ["Spigot", "Flange"].map((name, i) => ({ id: name, name, may_take_out: i > 0 }));
    const steps = { ...cuts, items, kinds: [] };
    show([fact("a")], { lists: [steps] });
    expect(screen.queryByRole("button", { name: "take out Spigot" })).toBeNull();
    expect(screen.getByRole("button", { name: "take out Flange" })).toBeInTheDocument();
  });

  it("offers no change of a list to who may only look", () => {
    show([fact("a")], { lists: [{ ...cuts, may_add: false, items: [] }] });
    expect(screen.queryByRole("button")).toBeNull();
  });
});
