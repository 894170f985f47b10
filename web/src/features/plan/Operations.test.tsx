import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { type ComponentProps, useState } from "react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { type PlanList, Refused, type Settled } from "../../api/client";
import { plan } from "../../tests/plan";
import { type FoundSettled, Operations } from "./Operations";
import * as settling from "./settling";

const LIST: PlanList = {
  path: "setups.s1.cuts",
  noun: "cut",
  named: "name",
  kind_label: "What it does",
  title: "Cuts",
  items: ["Face", "Rough"].map((name, i) => ({ id: `c${i + 1}`, name, may_take_out: true })),
  lines: null,
  may_add: true,
  ordered: true,
  kinds: [],
};
const FOUND: Settled = {
  revision: 4,
  words: "0.3 mm/rev, 2 passes",
  gains: true,
  cuts: [
    {
      id: "c2",
      name: "Rough",
      words: "0.3 mm/rev, 2 passes; the grip holds it back.",
      before: 2,
      after: 1.5,
      binds: "the grip at speed",
      without: 1.25,
      // biome-ignore lint/suspicious/noThenProperty: the wire's own word for what would bind then
      then: "the finish",
      gives_up: ["the breaker's depth"],
      tried: 100,
      gains: true,
      figures: "0.3 mm/rev, 2 passes",
      would: { feed_mm_rev: "0.300", count: "2" },
    },
  ],
};

/** With what was found kept beside it, as its screen does. */
function Kept(props: Omit<ComponentProps<typeof Operations>, "found" | "onFound">) {
  const [found, setFound] = useState<FoundSettled | null>(null);
  return <Operations {...props} found={found} onFound={setFound} />;
}

function show(cut: string | undefined, list = LIST, money = false) {
  const onDo = vi.fn(async () => plan());
  const of = { runId: 1, units: "metric" as const, setup: "s1", revision: 4 };
  render(<Kept of={of} list={list} money={money} cut={cut} onDo={onDo} />);
  return { onDo, user: userEvent.setup() };
}

describe("Operations", () => {
  beforeEach(() => vi.restoreAllMocks());

  it("shows what settling found, and keeps it only when it is taken", async () => {
    const ask = vi.spyOn(settling, "settle").mockResolvedValue({ key: "q1", answer: FOUND });
    const { onDo, user } = show("c2");
    await user.click(screen.getByRole("button", { name: "Settle Rough" }));
    expect(ask.mock.lastCall?.slice(0, 2)).toEqual([
      { runId: 1, units: "metric", setup: "s1", revision: 4 },
      { cut: "c2", goal: "quickest" },
    ]);
    expect(screen.getByRole("heading", { name: "0.3 mm/rev, 2 passes" })).toBeInTheDocument();
    expect(onDo).not.toHaveBeenCalled();
    await user.click(screen.getByRole("button", { name: "Take it" }));
    expect(onDo).toHaveBeenCalledWith({ kind: "settle", setup: "s1", question: "q1", base: 4 });
    expect(screen.queryByRole("button", { name: "Take it" })).toBeNull();
  });

  it("settles for long edge life where that is wanted, and offers nothing that is no gain", async () => {
    const answer = { ...FOUND, gains: false };
    const ask = vi.spyOn(settling, "settle").mockResolvedValue({ key: "q1", answer });
    const { user } = show("c2");
    await user.click(screen.getByRole("radio", { name: "long edge life" }));
    await user.click(screen.getByRole("button", { name: "Settle the set-up" }));
    expect(ask.mock.lastCall?.[1]).toEqual({ cut: null, goal: "life" });
    expect(screen.queryByRole("button", { name: "Take it" })).toBeNull();
    expect(screen.getByRole("button", { name: "nothing to gain: close" })).toBeInTheDocument();
  });

  it("offers the cheapest piece only where the shop counts money", async () => {
    const ask = vi.spyOn(settling, "settle").mockResolvedValue({ key: "q1", answer: FOUND });
    show("c2");
    expect(screen.queryByRole("radio", { name: "cheap" })).toBeNull();
    cleanup();
    const { user } = show("c2", LIST, true);
    await user.click(screen.getByRole("radio", { name: "cheap" }));
    await user.click(screen.getByRole("button", { name: "Settle the set-up" }));
    expect(ask.mock.lastCall?.[1]).toEqual({ cut: null, goal: "cheapest" });
  });

  it("takes nothing that was found for a draft that is gone", async () => {
    const answer = { ...FOUND, revision: 3 };
    vi.spyOn(settling, "settle").mockResolvedValue({ key: "q1", answer });
    const { user } = show("c2");
    await user.click(screen.getByRole("button", { name: "Settle Rough" }));
    expect(screen.getByRole("button", { name: "Take it" })).toBeDisabled();
    expect(screen.getByRole("status")).toHaveTextContent("the plan has changed since: settle it again");
  });

  it("tells how far it has come, and stops when it is told to", async () => {
    let stopped: AbortSignal | undefined;
    vi.spyOn(settling, "settle").mockImplementation((_, __, signal, onStanding) => {
      stopped = signal;
      onStanding({ state: "working", before: 0, done: 6, of: 22, told: "" });
      return new Promise((_resolve, reject) => {
        signal.addEventListener("abort", () => reject(new DOMException("", "AbortError")));
      });
    });
    const { user } = show("c2");
    await user.click(screen.getByRole("button", { name: "Settle the set-up" }));
    expect(await screen.findByText(/7 of 22/)).toBeInTheDocument();
    expect(screen.getByRole("button", { name: "Settle Rough" })).toBeDisabled();
    await user.click(screen.getByRole("button", { name: "stop it" }));
    expect(stopped?.aborted).toBe(true);
    expect(screen.queryByRole("alert")).toBeNull();
    expect(screen.getByRole("button", { name: "Settle Rough" })).toBeEnabled();
  });

  it("says why nothing can be settled", async () => {
    const errors = [{ field: "setups.s1.cuts", message: "No pressure and clamp hold every cut." }];
    vi.spyOn(settling, "settle").mockRejectedValue(
      new Refused(422, { type: "", title: "", status: 422, errors }),
    );
    const { user } = show("c2");
    await user.click(screen.getByRole("button", { name: "Settle the set-up" }));
    expect(screen.getByRole("alert")).toHaveTextContent("No pressure and clamp hold every cut.");
  });

  it("moves, splits and proposes with the draft that was looked at", async () => {
    const { onDo, user } = show("c2");
    expect(screen.queryByRole("button", { name: "later" })).toBeNull(); // it is the last
    await user.click(screen.getByRole("button", { name: "earlier" }));
    await user.click(screen.getByRole("button", { name: "split into roughing and finishing" }));
    await user.click(screen.getByRole("button", { name: /propose all operations again/ }));
    const at = { path: `${LIST.path}.c2`, base: 4 };
    expect(onDo.mock.calls).toEqual([
      [{ kind: "move", ...at, behind: "" }],
      [{ kind: "split", ...at }],
      [{ kind: "propose", setup: "s1", base: 4 }],
    ]);
  });

  it("offers the proposal alone where there is nothing yet", () => {
    show(undefined, { ...LIST, items: [] });
    expect(screen.getAllByRole("button").map((b) => b.textContent)).toEqual([
      "propose operations from the profile",
    ]);
  });

  it("offers nothing to who may not change a plan", () => {
    show("c2", { ...LIST, may_add: false, items: LIST.items.map((i) => ({ ...i, may_take_out: false })) });
    expect(screen.queryByRole("button")).toBeNull();
  });
});
