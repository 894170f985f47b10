import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { type LikeCuts, Refused } from "../../api/client";
import { plan } from "../../tests/plan";
import * as queries from "./cutQueries";
import { ProvenPanel } from "./ProvenPanel";

const LINE = {
  id: 5,
  run: "",
  by: "setter",
  at: "2026-11-20T10:00:00Z",
  score: 95,
  why: ["same material", "same edge"],
  said: {
    speed_m_min: "130 m/min",
    feed_mm_rev: "0.12 mm/rev",
    depth_mm: "0.5 mm",
    insert: "CCMT 09T304",
    material: "duplex",
    chip: "short curls or sixes",
    finish_um: "1.3 µm",
    remarks: "quiet",
    on: "2026-11-20",
  },
};

type Keep = { error?: unknown; isSuccess?: boolean };

function show(cuts: LikeCuts["cuts"], keep: Keep = {}, may = { take: true, keep: true }) {
  vi.spyOn(queries, "useLikeCuts").mockReturnValue({
    data: { revision: 2, cut: "Finish", cuts },
  } as never);
  const mutate = vi.fn();
  vi.spyOn(queries, "useKeepCut").mockReturnValue({
    mutate,
    error: null,
    isPending: false,
    isSuccess: false,
    ...keep,
  } as never);
  const onDo = vi.fn(async () => plan());
  render(
    <MemoryRouter>
      <ProvenPanel
        of={{ runId: 1, units: "metric", setup: "s1", cut: "c3", revision: 2 }}
        name="Finish"
        mayTake={may.take}
        mayKeep={may.keep}
        onDo={onDo}
      />
    </MemoryRouter>,
  );
  return { mutate, onDo, user: userEvent.setup() };
}

describe("ProvenPanel", () => {
  beforeEach(() => vi.restoreAllMocks());

  it("says how like a proven cut is, why, and how it went", () => {
    show([LINE]);
    expect(screen.getByText(/95/)).toHaveTextContent("130 m/min, 0.12 mm/rev, 0.5 mm deep · CCMT 09T304");
    expect(screen.getByText(/same material; same edge/)).toHaveTextContent("Ra 1.3 µm · “quiet”");
  });

  it("takes its figures with the draft that was looked at", async () => {
    const { onDo, user } = show([LINE]);
    await user.click(screen.getByRole("button", { name: "take these figures, of 2026-11-20" }));
    expect(onDo).toHaveBeenCalledWith({ kind: "proven", setup: "s1", cut: "c3", proven: 5, base: 2 });
  });

  it("teaches where nothing is like it", () => {
    show([]);
    expect(screen.getByText(/When the cut works, keep it here/)).toBeInTheDocument();
    expect(screen.getByRole("link", { name: "notebook" })).toHaveAttribute("href", "/notebook");
  });

  it("keeps the cut with what was seen of it", async () => {
    const { mutate, user } = show([]);
    await user.click(screen.getByRole("button", { name: "Finish worked: keep it" }));
    await user.type(screen.getByLabelText("Finish Ra measured"), "1.2");
    await user.type(screen.getByLabelText("Remarks"), "mirror");
    await user.click(screen.getByRole("button", { name: "Keep it in the notebook" }));
    expect(mutate.mock.calls[0]?.[0]).toEqual({ chip: "", finish_um: "1.2", remarks: "mirror" });
  });

  it("tells what cannot be read at its field and loses nothing", async () => {
    const errors = [{ field: "finish_um", message: "“rough” is not a figure." }];
    const error = new Refused(422, { type: "", title: "", status: 422, errors });
    const { user } = show([], { error });
    await user.click(screen.getByRole("button", { name: "Finish worked: keep it" }));
    await user.type(screen.getByLabelText("Finish Ra measured"), "rough");
    expect(screen.getByText("“rough” is not a figure.")).toBeInTheDocument();
    expect(screen.getByLabelText("Finish Ra measured")).toHaveValue("rough");
  });

  it("offers an operator neither", () => {
    show([LINE], {}, { take: false, keep: false });
    expect(screen.queryByRole("button")).toBeNull();
  });
});
