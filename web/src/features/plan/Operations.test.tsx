import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { type PlanList, Refused, type Settled } from "../../api/client";
import { Operations } from "./Operations";
import * as queries from "./queries";

const LIST: PlanList = {
  path: "setups.0.cuts",
  noun: "cut",
  named: "name",
  kind_label: "What it does",
  title: "Cuts",
  items: ["Face", "Rough"],
  lines: null,
  may_add: true,
  removable_from: 0,
  kinds: [],
};
const FOUND: Settled = {
  revision: 4,
  words: "0.3 mm/rev, 2 passes",
  cuts: [
    {
      index: 1,
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
    },
  ],
};

function show(cut: number, list = LIST) {
  const onDo = vi.fn(async () => true);
  render(<Operations runId={1} units="metric" side={0} list={list} cut={cut} revision={4} onDo={onDo} />);
  return { onDo, user: userEvent.setup() };
}

describe("Operations", () => {
  beforeEach(() => vi.restoreAllMocks());

  it("shows what settling found, and keeps it only when it is taken", async () => {
    const ask = vi.spyOn(queries, "settle").mockResolvedValue(FOUND);
    const { onDo, user } = show(1);
    await user.click(screen.getByRole("button", { name: "Settle Rough" }));
    expect(ask).toHaveBeenCalledWith(1, 0, 1, "metric");
    expect(screen.getByText("the grip at speed (1.25 min without it), then the finish")).toBeInTheDocument();
    expect(screen.getByText("gives up: the breaker's depth")).toBeInTheDocument();
    expect(onDo).not.toHaveBeenCalled();
    await user.click(screen.getByRole("button", { name: "Take it" }));
    expect(onDo).toHaveBeenCalledWith({ kind: "settle", side: 0, cut: 1, base: 4 });
    expect(screen.queryByRole("button", { name: "Take it" })).toBeNull();
  });

  it("says why nothing can be settled", async () => {
    const errors = [{ field: "setups.0.cuts", message: "No pressure and clamp hold every cut." }];
    vi.spyOn(queries, "settle").mockRejectedValue(
      new Refused(422, { type: "", title: "", status: 422, errors }),
    );
    const { user } = show(1);
    await user.click(screen.getByRole("button", { name: "Settle the set-up" }));
    expect(screen.getByRole("alert")).toHaveTextContent("No pressure and clamp hold every cut.");
  });

  it("moves, splits and proposes with the draft that was looked at", async () => {
    const { onDo, user } = show(1);
    expect(screen.queryByRole("button", { name: "later" })).toBeNull(); // it is the last
    await user.click(screen.getByRole("button", { name: "earlier" }));
    await user.click(screen.getByRole("button", { name: "split into roughing and finishing" }));
    await user.click(screen.getByRole("button", { name: /propose all operations again/ }));
    const at = { path: LIST.path, index: 1, base: 4 };
    expect(onDo.mock.calls).toEqual([
      [{ kind: "move", ...at, to: 0 }],
      [{ kind: "split", ...at }],
      [{ kind: "propose", side: 0, base: 4 }],
    ]);
  });

  it("offers the proposal alone where there is nothing yet", () => {
    show(-1, { ...LIST, items: [] });
    expect(screen.getAllByRole("button").map((b) => b.textContent)).toEqual([
      "propose operations from the profile",
    ]);
  });

  it("offers nothing to who may not change a plan", () => {
    show(1, { ...LIST, may_add: false, removable_from: 2 });
    expect(screen.queryByRole("button")).toBeNull();
  });
});
