import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { ToolsForCut } from "../../api/client";
import * as queries from "./cutQueries";
import { ToolsPanel } from "./ToolsPanel";

const TOOLS: ToolsForCut = {
  revision: 3,
  cut: "Rough",
  path: "setups.s1.cuts.c2.tool",
  fit: 2,
  rejected: 80,
  tools: [
    { key: "a/h", name: "CNMG on H", score: 97, chosen: true, why: ["robust", "40 in stock"], rejected: "" },
    { key: "b/h", name: "WNMG on H", score: 90, chosen: false, why: ["must be bought"], rejected: "" },
    { key: "c/h", name: "VNMG on H", score: 60, chosen: false, why: [], rejected: "it does not rough" },
  ],
};

function show(mayTake = true) {
  const ask = vi
    .spyOn(queries, "useToolsForCut")
    .mockImplementation(
      (_of, _find, wanted) => ({ data: wanted ? TOOLS : undefined, isError: false }) as never,
    );
  const onTake = vi.fn();
  render(
    <QueryClientProvider client={new QueryClient()}>
      <ToolsPanel
        of={{ runId: 1, units: "metric", setup: "s1", cut: "c2", revision: 3 }}
        name="Rough"
        mayTake={mayTake}
        onTake={onTake}
      />
    </QueryClientProvider>,
  );
  return { ask, onTake, user: userEvent.setup() };
}

const open = { name: "every tool for Rough, and why not" };

describe("ToolsPanel", () => {
  beforeEach(() => vi.restoreAllMocks());

  it("asks for nothing until it is opened", async () => {
    const { ask, user } = show();
    expect(ask).toHaveBeenLastCalledWith(expect.anything(), "", false);
    await user.click(screen.getByRole("button", open));
    expect(ask).toHaveBeenLastCalledWith(expect.anything(), "", true);
    expect(screen.getByText(/2 fit, 80 do not; the first 3 are shown/)).toBeInTheDocument();
  });

  it("tells of each why it fits or why it does not", async () => {
    const { user } = show();
    await user.click(screen.getByRole("button", open));
    expect(screen.getByText("robust; 40 in stock")).toBeInTheDocument();
    expect(screen.getByText("Not this one: it does not rough.")).toBeInTheDocument();
  });

  it("takes one that fits and is not chosen yet, and no other", async () => {
    const { onTake, user } = show();
    await user.click(screen.getByRole("button", open));
    expect(screen.queryByRole("button", { name: "take CNMG on H" })).toBeNull();
    expect(screen.queryByRole("button", { name: "take VNMG on H" })).toBeNull();
    await user.click(screen.getByRole("button", { name: "take WNMG on H" }));
    expect(onTake).toHaveBeenCalledWith("setups.s1.cuts.c2.tool", "b/h");
  });

  it("finds by words, and closes", async () => {
    const { ask, user } = show();
    await user.click(screen.getByRole("button", open));
    await user.type(screen.getByRole("searchbox", { name: "Find a tool" }), "VN");
    expect(ask).toHaveBeenLastCalledWith(expect.anything(), "VN", true);
    await user.click(screen.getByRole("button", { name: "close" }));
    expect(screen.getByRole("button", open)).toBeInTheDocument();
  });

  it("offers nothing to take to who may not change a plan", async () => {
    const { user } = show(false);
    await user.click(screen.getByRole("button", open));
    expect(screen.queryByRole("button", { name: /^take/ })).toBeNull();
  });
});
