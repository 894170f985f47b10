import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { PlanList, PlanTable, Stop } from "../../api/client";
import { plan, sideOf } from "../../tests/plan";
import { CompareTable } from "./CompareTable";
import { DrawingPanel } from "./DrawingPanel";
import { LineBar } from "./LineBar";
import { ProgramBlock } from "./ProgramBlock";

const look = vi.hoisted(() => vi.fn());
vi.mock("./queries", async (real) => ({ ...(await real<object>()), lookAtDrawing: look }));

const steps: PlanList = {
  path: "part.profile.outside",
  noun: "step",
  named: "name",
  kind_label: "What it does",
  title: "Outside steps",
  lines: "Spigot: 84 h7 x 40\nFlange: 118 x 14",
  items: ["Spigot", "Flange"].map((name, i) => ({ id: `o${i + 1}`, name, may_take_out: true })),
  may_add: true,
  ordered: false,
  kinds: [],
};

function lines(more: Partial<Parameters<typeof LineBar>[0]> = {}) {
  const on = {
    onAdd: vi.fn(async () => true),
    onRemove: vi.fn(),
    onType: vi.fn(),
    onKeep: vi.fn(),
    onCancel: vi.fn(),
  };
  render(<LineBar list={steps} trouble={null} {...on} {...more} />);
  return { ...on, user: userEvent.setup() };
}

describe("LineBar", () => {
  it("puts in the next line on Enter and is ready for another, without the mouse", async () => {
    const { user, onAdd } = lines();
    const next = screen.getByLabelText("Next step");
    await user.type(next, "90 x 3{Enter}");
    expect(onAdd).toHaveBeenCalledExactlyOnceWith("90 x 3");
    await waitFor(() => expect(next).toHaveValue(""));
    expect(next).toHaveFocus();
  });

  it("keeps a refused line to be mended", async () => {
    const { user } = lines({ onAdd: vi.fn(async () => false) });
    const next = screen.getByLabelText("Next step");
    await user.type(next, "84,5 x 3{Enter}");
    expect(next).toHaveValue("84,5 x 3");
  });

  it("looks at several pasted lines together with those there are, before any is kept", async () => {
    const { user, onType, onKeep } = lines();
    await user.click(screen.getByLabelText("Next step"));
    await user.paste("Hub: 60 x 10\nNose: 40 x 5");
    const whole = "Spigot: 84 h7 x 40\nFlange: 118 x 14\nHub: 60 x 10\nNose: 40 x 5";
    expect(screen.getByLabelText(/Outside steps, one line a step/)).toHaveValue(whole);
    expect(onType).toHaveBeenLastCalledWith("part.profile.outside", whole);
    await user.click(screen.getByRole("button", { name: "Keep the list" }));
    expect(onKeep).toHaveBeenCalledExactlyOnceWith("part.profile.outside", { text: whole });
  });

  it("says of every wrong line what is wrong, and does not keep the list", async () => {
    const trouble = {
      path: "part.profile.outside",
      entry: { text: "x" },
      kind: "refused" as const,
      message: "Line 2, “x”: cannot be read\nLine 3, “y”: cannot be read",
      units: "metric" as const,
      stop: "part",
    };
    const { user, onCancel } = lines({ trouble });
    await user.click(screen.getByRole("button", { name: /whole list/ }));
    expect(screen.getByRole("alert")).toHaveTextContent("Line 3");
    expect(screen.getByRole("button", { name: "Keep the list" })).toBeDisabled();
    await user.click(screen.getByRole("button", { name: "put back" }));
    expect(onCancel).toHaveBeenCalledWith("part.profile.outside");
  });
});

const table: PlanTable = {
  name: "teeth",
  title: "Teeth compared",
  group: "",
  head: ["tooth", "face Ø"],
  words: "",
  rows: [
    {
      label: "9",
      cells: ["67.00 mm"],
      chosen: false,
      path: "setups.s1.jaws.tooth",
      value: 9,
      takable: true,
      why_not: "",
    },
    {
      label: "10",
      cells: ["70.00 mm"],
      chosen: true,
      path: "setups.s1.jaws.tooth",
      value: 10,
      takable: false,
      why_not: "",
    },
    {
      label: "11",
      cells: ["73.00 mm"],
      chosen: false,
      path: "p",
      value: 11,
      takable: false,
      why_not: "does not clean up",
    },
  ],
};

describe("CompareTable", () => {
  it("marks what is in force, says what speaks against another, and takes one", async () => {
    const onTake = vi.fn();
    render(<CompareTable table={table} onTake={onTake} />);
    expect(screen.getByRole("row", { name: /10/ })).toHaveTextContent("in force");
    expect(screen.getByRole("row", { name: /11/ })).toHaveTextContent("does not clean up");
    expect(screen.queryByRole("button", { name: "take 11" })).toBeNull();
    await userEvent.setup().click(screen.getByRole("button", { name: "take 9" }));
    expect(onTake).toHaveBeenCalledExactlyOnceWith("setups.s1.jaws.tooth", 9);
  });
});

describe("ProgramBlock", () => {
  it("is a draft to take, in the units shown, or says what it waits for", () => {
    const shown = plan({ revision: 7, units: "inch", run: { ...plan().run, id: 3 } });
    const block = (program: NonNullable<Stop["program"]>) => (
      <ProgramBlock program={program} side={sideOf(1)} plan={shown} />
    );
    const { rerender } = render(block({ ready: true, reasons: [] }));
    const link = screen.getByRole("link", { name: "Take the jaw program" });
    expect(link).toHaveAttribute("href", "/api/runs/3/sides/s2/jaw-program?units=inch");
    expect(screen.getByText(/DRAFT 7, NOT RELEASED/)).toBeInTheDocument();
    rerender(block({ ready: false, reasons: ["Give a program number under Jaw program."] }));
    expect(screen.queryByRole("link")).toBeNull();
    expect(screen.getByText("Give a program number under Jaw program.")).toBeInTheDocument();
  });
});

describe("DrawingPanel", () => {
  function panel(mayEdit = true) {
    const onTake = vi.fn(async () => plan());
    render(<DrawingPanel runId={1} units="metric" mayEdit={mayEdit} revision={4} onTake={onTake} />);
    return { onTake, user: userEvent.setup() };
  }
  // jsdom reads no files.
  const file = (size = 10) =>
    Object.assign(new File(["x".repeat(size)], "part.dxf"), { text: async () => "x".repeat(size) });
  const give = async (user: ReturnType<typeof userEvent.setup>, given: File) => {
    const input = document.querySelector<HTMLInputElement>("input[type=file]");
    await user.upload(input as HTMLInputElement, given);
  };

  it("asks for layer and unit where the drawing does not say, then shows the lines and takes them", async () => {
    look.mockResolvedValueOnce({ layers: ["FRAME", "PART"], units: [], lines: {}, notes: [] });
    look.mockResolvedValueOnce({
      layers: [],
      units: [],
      lines: { outside: "Step 1: 84 x 40", inside: "" },
      notes: ["The line is open."],
    });
    const { user, onTake } = panel();
    await give(user, file());
    await user.click(await screen.findByRole("button", { name: /Layer with the profile/ }));
    await user.click(await screen.findByRole("option", { name: "layer PART" }));
    expect(await screen.findByText("Step 1: 84 x 40")).toBeInTheDocument();
    expect(screen.getByText("The line is open.")).toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: "Put it in place of the profile" }));
    expect(onTake).toHaveBeenCalledExactlyOnceWith({
      kind: "drawing",
      base: 4,
      drawing: { text: "xxxxxxxxxx", name: "part.dxf", layer: "PART", unit: null },
    });
  });

  it("refuses a file too large before it is sent, and offers nothing to who may only look", async () => {
    look.mockClear();
    const { user } = panel();
    await give(user, file(5_000_001));
    expect(await screen.findByRole("alert")).toHaveTextContent("too large");
    expect(look).not.toHaveBeenCalled();
  });

  it("saves the part as a drawing, also for who may only look", () => {
    panel(false);
    expect(screen.getByRole("link", { name: "save DXF" })).toHaveAttribute("href", "/api/runs/1/part.dxf");
    expect(screen.queryByRole("button", { name: /Read a DXF/ })).toBeNull();
  });
});
