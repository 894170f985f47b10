import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Fact } from "../../api/client";
import { fact, stop } from "../../tests/plan";
import { Ledger } from "./Ledger";
import type { Trouble } from "./useEditing";

type More = { mayEdit?: boolean; trouble?: Trouble | null; lit?: string; was?: [string, string] };

function show(facts: Fact[], more: More = {}) {
  const on = {
    onType: vi.fn(),
    onKeep: vi.fn(),
    onCancel: vi.fn(),
    onTryAgain: vi.fn(),
    onTakeTheirs: vi.fn(),
    onTakeMine: vi.fn(),
    onLight: vi.fn(),
  };
  render(
    <Ledger
      stop={stop("force", { facts })}
      changes={new Map(more.was ? [more.was] : [])}
      lit={more.lit ?? null}
      mayEdit={more.mayEdit ?? true}
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
  return { ...refused, key: "k", units: "metric", ...more };
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
    show([fact("depth"), fact("centre", { kind: "flag", value: true, text: "yes" })], { mayEdit: false });
    expect(screen.queryByRole("textbox")).toBeNull();
    expect(screen.queryByRole("radio")).toBeNull();
    expect(row("centre")).toHaveTextContent("yes");
  });

  it("marks what moved with what it was, and what was typed", () => {
    show([fact("depth"), fact("length", { typed: "1 7/16 in" })], { was: ["fact:depth", "22.00"] });
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
    expect(onTryAgain).toHaveBeenCalledExactlyOnceWith("facts.depth");
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
});
