import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import * as queries from "./machineQueries";
import { Staying } from "./Staying";

const TOLD = "LH-2041 Seal carrier stands before it on this machine: 6 tools of 9 stay.";

function show(found: { tools: number; now: number }, mayTake = true) {
  vi.spyOn(queries, "useStays").mockReturnValue({ data: { ...found, told: TOLD } } as ReturnType<
    typeof queries.useStays
  >);
  const onTake = vi.fn();
  render(<Staying runId={1} revision={4} onTake={mayTake ? onTake : null} />);
  return onTake;
}

describe("Staying", () => {
  it("counts the tools that stand there at a press", async () => {
    const onTake = show({ tools: 6, now: 0 });
    expect(screen.getByText(/6 tools of 9 stay/)).toBeInTheDocument();
    await userEvent.setup().click(screen.getByRole("button", { name: "Count 6 as standing" }));
    expect(onTake).toHaveBeenCalledWith(6);
  });

  it("says that they are counted", () => {
    show({ tools: 6, now: 6 });
    expect(screen.getByText(/The set-up counts them/)).toBeInTheDocument();
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("offers nothing to who may not change the plan", () => {
    show({ tools: 6, now: 2 }, false);
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("takes back what is counted where none stands there any more", async () => {
    const onTake = show({ tools: 0, now: 2 });
    await userEvent.setup().click(screen.getByRole("button", { name: "Count none as standing" }));
    expect(onTake).toHaveBeenCalledWith(0);
  });
});
