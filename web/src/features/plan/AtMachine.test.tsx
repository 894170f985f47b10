import { render, screen } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { describe, expect, it, vi } from "vitest";
import type { Plan } from "../../api/client";
import { AtMachine } from "./AtMachine";
import * as queries from "./machineQueries";

type Done = NonNullable<ReturnType<typeof queries.useAtMachine>["data"]>;

const mark = (step: string, state: "done" | "open") => ({
  step,
  title: `Do ${step}`,
  state,
  reason: "",
  by: "setter",
  at: "2027-03-01T06:10:00Z",
});

function show(place: string, level: "good" | "stop" = "good") {
  const done = {
    steps: 31,
    replaced: false,
    place,
    marks: [mark("clean", "done"), mark("feeler", "open")],
    readings: [{ title: "Set the pressure", shown: "12.0 bar", follows: { told: { level } } }],
  } as unknown as Done;
  const asked = vi
    .spyOn(queries, "useAtMachine")
    .mockReturnValue({ data: done } as ReturnType<typeof queries.useAtMachine>);
  const plan = { at: null, run: { id: 3, place }, release: { number: 2 } } as unknown as Plan;
  render(
    <MemoryRouter>
      <AtMachine plan={plan} units="metric" />
    </MemoryRouter>,
  );
  return asked;
}

describe("AtMachine", () => {
  it("tells how far the setter is and what was read last", () => {
    show("setting");
    const strip = screen.getByRole("status", { name: "At the machine" });
    expect(strip).toHaveTextContent("release 2: setting, 1 of 31 steps");
    expect(strip).toHaveTextContent("last ticked: Do clean, setter");
    expect(strip).toHaveTextContent("last read: Set the pressure, 12.0 bar");
    expect(screen.getByRole("link", { name: "watch its card" })).toHaveAttribute("href", "/runs/3/card");
  });

  it("says where what was read stops it", () => {
    show("proving", "stop");
    expect(screen.getByRole("status")).toHaveTextContent("it says to stop");
  });

  it("watches nothing before a card was begun, and asks for nothing then", () => {
    const asked = show("ready");
    expect(screen.queryByRole("status")).toBeNull();
    expect(asked).toHaveBeenCalledWith(3, null, "metric");
  });
});
