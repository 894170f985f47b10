import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { describe, expect, it, vi } from "vitest";
import type { Help, Stop } from "../../api/client";
import { answer, help, note, stop } from "../../tests/plan";
import { Slip } from "./Slip";

type More = { working?: string | null; was?: string; helps?: Help[]; isLate?: boolean };

function show(given: Stop, more: More = {}) {
  const on = { onWorking: vi.fn(), onHelp: vi.fn(), onLight: vi.fn() };
  const changes = new Map(more.was ? [[`answer:${given.name}:cap`, more.was]] : []);
  const helps = { content: more.helps, isLate: more.isLate ?? false };
  render(
    <Slip stop={given} helps={helps} changes={changes} lit={null} working={more.working ?? null} {...on} />,
  );
  return { ...on, user: userEvent.setup() };
}

describe("Slip", () => {
  it("shows an answer, what it was, and its margin in words beside the bar", () => {
    const bar = { share: 0.5, mark: 1 / 3, mark_label: "a third is usual" };
    show(stop("force", { answers: [answer("cap", { bar, below: "set by the grip" })] }), { was: "900" });
    expect(screen.getByText("811")).toBeInTheDocument();
    expect(screen.getByText("was 900")).toBeInTheDocument();
    expect(screen.getByText("a third is usual")).toBeInTheDocument();
    expect(screen.getByText("set by the grip")).toBeInTheDocument();
  });

  it("opens and closes the working of an answer", async () => {
    const { user, onWorking } = show(stop("force", { answers: [answer("cap")] }));
    await user.click(screen.getByRole("button", { name: "show working: cap" }));
    expect(onWorking).toHaveBeenCalledExactlyOnceWith("cap");
  });

  it("closes an open working", async () => {
    const { user, onWorking } = show(stop("force", { answers: [answer("cap")] }), { working: "cap" });
    const button = screen.getByRole("button", { name: "hide working: cap" });
    expect(button).toHaveAttribute("aria-expanded", "true");
    await user.click(button);
    expect(onWorking).toHaveBeenCalledExactlyOnceWith(null);
  });

  const stopped = stop("force", {
    state: "stopped",
    notes: [note("info", "Told last."), note("caution", "Mind."), note("stop", "Too fast.")],
  });
  const helps = [help("Hold the clamp to 800"), help("Thinner air", { settles: false })];

  it("says what stops first, as an alert, then what would help, then cautions", () => {
    show(stopped, { helps });
    expect(screen.getByRole("alert")).toHaveTextContent("Stopped. Too fast.");
    const text = document.body.textContent ?? "";
    const order = ["Too fast.", "Hold the clamp to 800", "Mind.", "Told last."].map((t) => text.indexOf(t));
    expect(order).toEqual([...order].sort((a, b) => a - b));
  });

  it("puts cautions before helps where nothing is stopped, and offers no button", () => {
    show({ ...stopped, state: "settled", notes: stopped.notes.slice(1, 2) }, { helps });
    const text = document.body.textContent ?? "";
    expect(text.indexOf("Mind.")).toBeLessThan(text.indexOf("Hold the clamp"));
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("takes a help, also one that leaves something to mend", async () => {
    const { user, onHelp } = show(stopped, { helps });
    await user.click(screen.getByRole("button", { name: "Thinner air" }));
    await user.click(screen.getByRole("button", { name: "Hold the clamp to 800" }));
    expect(onHelp.mock.calls).toEqual([[helps[1]], [helps[0]]]);
  });

  it("says so where nothing that was tried would help", () => {
    show(stopped, { helps: [] });
    expect(screen.getByLabelText("What would help")).toHaveTextContent("No single change");
  });

  it("offers nothing to who may only look", () => {
    show(stopped, { helps: helps.map((h) => ({ ...h, takable: false })) });
    expect(screen.queryByRole("button")).toBeNull();
    expect(screen.getByText("Hold the clamp to 800")).toBeInTheDocument();
  });

  it("takes no help that was tried for another plan than the one shown", () => {
    show(stopped, { helps, isLate: true });
    expect(screen.getByRole("button", { name: "Hold the clamp to 800" })).toBeDisabled();
    expect(screen.getByLabelText("What would help")).toHaveAttribute("aria-busy", "true");
  });

  it("says why there is nothing to answer", () => {
    show(stop("force", { state: "open", line: "waiting on Hold" }));
    expect(screen.getByText(/waiting on Hold/)).toBeInTheDocument();
  });

  it("names what is missing beside the answers there are, each a way to its fact", () => {
    const lacks = [{ label: "tool of Bore", stop: "tools-s1", path: "setups.s1.cuts.c2.tool" }];
    render(
      <MemoryRouter>
        <Slip
          stop={stop("tools", { answers: [answer("chosen")], lacks })}
          helps={{ content: undefined, isLate: false }}
          changes={new Map()}
          lit={null}
          working={null}
          onWorking={vi.fn()}
          onHelp={vi.fn()}
          onLight={vi.fn()}
        />
      </MemoryRouter>,
    );
    expect(screen.getByText(/Missing:/)).not.toHaveTextContent("Nothing to answer");
    expect(screen.getByRole("link", { name: "tool of Bore" })).toHaveAttribute(
      "href",
      "/tools-s1#setups.s1.cuts.c2.tool",
    );
  });

  it("shows a problem's sentence", () => {
    show(stop("hold", { state: "stopped", problems: [{ field: "x", message: "Give 40 mm or less." }] }));
    expect(screen.getByRole("alert")).toHaveTextContent("Give 40 mm or less.");
  });
});
