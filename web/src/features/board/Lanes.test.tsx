import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Board } from "../../api/client";
import { Lanes } from "./Lanes";
import { daysOn, onTheWall, placeOf } from "./scale";

const DAY = 86_400;
const MONDAY = Date.UTC(2026, 10, 30) / 1000;

const board: Board = {
  may_edit: true,
  told: "",
  zone: "UTC",
  now: MONDAY + DAY / 2,
  days: [
    { said: "Mon 30 Nov", date: "2026-11-30", begins: MONDAY, ends: MONDAY + DAY },
    { said: "Tue 1 Dec", date: "2026-12-01", begins: MONDAY + DAY, ends: MONDAY + 2 * DAY },
  ],
  hours: [{ begins: MONDAY + 6 * 3600, ends: MONDAY + 22 * 3600, people: true }],
  machines: [
    {
      name: "Lathe 3",
      later: 2,
      free: MONDAY + DAY,
      runs: [
        {
          id: 1,
          name: "Seal carrier",
          drawing_number: "LH-2041",
          revision: 4,
          verdict: "settled",
          start: MONDAY + 6 * 3600,
          begins: MONDAY + 6 * 3600,
          running: MONDAY + 7 * 3600,
          done: MONDAY + 18 * 3600,
          begins_said: "Mon 30 Nov 06:00",
          done_said: "Mon 30 Nov 18:00",
          slips: "waits for LH-2188 Bearing cap",
          goes: "",
          moves: true,
        },
      ],
    },
  ],
  waiting: [],
};

function show(of: Board = board) {
  const onMove = vi.fn();
  const onHeld = vi.fn();
  render(<Lanes board={of} onMove={onMove} onHeld={onHeld} />);
  const run = () => screen.getByRole("button", { name: /LH-2041 Seal carrier/ });
  return { onMove, onHeld, run, user: userEvent.setup() };
}

describe("Lanes", () => {
  it("tells all of a run, and how many begin later", () => {
    const { run } = show();
    expect(run()).toHaveAccessibleName(/set-up begins Mon 30 Nov 06:00.*waits for.*done Mon 30 Nov 18:00/);
    expect(screen.getByText("2 later")).toBeInTheDocument();
  });

  it("moves a run by an hour or a day, and keeps it only with Enter", async () => {
    const { onMove, onHeld, run, user } = show();
    run().focus();
    await user.keyboard("{ArrowRight}{Shift>}{ArrowRight}{/Shift}");
    expect(onHeld.mock.lastCall?.[0]).toMatch(/would begin Tue,? 1 Dec,? 07:00/);
    expect(onMove).not.toHaveBeenCalled();
    await user.keyboard("{Escape}{Enter}");
    expect(onMove).not.toHaveBeenCalled();
    await user.keyboard("{ArrowLeft}{Enter}");
    expect(onMove).toHaveBeenCalledExactlyOnceWith(board.machines[0]?.runs[0], MONDAY + 5 * 3600);
  });

  it("leaves a run where it is once its pieces come, and says how it goes", async () => {
    const machines = board.machines.map((m) => ({
      ...m,
      runs: m.runs.map((r) => ({ ...r, slips: "", goes: "46 of 90 good pieces", moves: false })),
    }));
    const { onMove, run, user } = show({ ...board, machines });
    expect(run()).toHaveAccessibleName(/began Mon 30 Nov 06:00, 46 of 90 good pieces.*runs · done/);
    run().focus();
    await user.keyboard("{ArrowRight}{Enter}");
    expect(onMove).not.toHaveBeenCalled();
  });

  it("moves nothing for who only looks", async () => {
    const { onMove, run, user } = show({ ...board, may_edit: false });
    run().focus();
    await user.keyboard("{ArrowRight}{Enter}");
    expect(onMove).not.toHaveBeenCalled();
  });
});

describe("the scale", () => {
  it("places moments on the days shown, and those outside at their edge", () => {
    const place = placeOf(board);
    expect([MONDAY - 9, MONDAY + DAY, MONDAY + 9 * DAY].map(place)).toEqual([0, 50, 100]);
  });

  it("goes on by days over a month's end, and reads by the shop's wall", () => {
    expect([daysOn("2028-02-25", 7), daysOn("2026-12-03", -7)]).toEqual(["2028-03-03", "2026-11-26"]);
    expect(onTheWall(MONDAY, "Asia/Tokyo")).toMatch(/^Mon,? 30 Nov,? 09:00$/);
  });
});
