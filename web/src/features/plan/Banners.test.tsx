import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { describe, expect, it, vi } from "vitest";
import type { Plan } from "../../api/client";
import { plan } from "../../tests/plan";
import { Banners } from "./Banners";

function show(more: Partial<Plan>, given: { past?: boolean; mayPlan?: boolean } = {}) {
  const onKeep = vi.fn();
  render(
    <MemoryRouter>
      <Banners plan={plan(more)} past={false} stop="force-1" mayPlan onKeep={onKeep} {...given} />
    </MemoryRouter>,
  );
  return onKeep;
}

const newer = {
  number: 1,
  today: 3,
  changes: ["Safety on the grip 2.00 → 2.50"],
  moves: ["cap 791 rpm → 0 rpm"],
  money: false,
};

describe("Banners", () => {
  it("says nothing of a plan under the rules of today", () => {
    show({});
    expect(screen.queryByRole("status")).toBeNull();
  });

  it("tells what today's house rules would move, and takes them", async () => {
    const onKeep = show({ rules: newer });
    const told = screen.getByRole("status");
    expect(told).toHaveTextContent("house rules 1; today’s are 3: Safety on the grip 2.00 → 2.50");
    expect(told).toHaveTextContent("Under today’s: cap 791 rpm → 0 rpm.");
    await userEvent.click(screen.getByRole("button", { name: "Take today’s rules" }));
    expect(onKeep).toHaveBeenCalledWith("rules", { value: "today" });
  });

  it("offers nothing to who does not plan, and nothing of an earlier draft", () => {
    show({ rules: newer }, { mayPlan: false });
    expect(screen.queryByRole("button")).toBeNull();
    show({ rules: null, at: 4 }, { past: true });
    expect(screen.getByText(/Draft 4 as it was/)).toBeInTheDocument();
  });
});
