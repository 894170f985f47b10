import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { describe, expect, it, vi } from "vitest";
import { client } from "../../api/client";
import { HouseRules } from "./HouseRules";

const safety = {
  name: "safety",
  label: "Safety on the grip",
  help: "Covers what the figures do not know",
  value: 2,
  unit: "",
  text: "2.00",
  usual: "2.00",
  options: null,
  changed: null,
};
const page = (more = {}) => ({ number: 1, may_edit: true, rules: [safety], history: [], ...more });
const ok = (data: unknown) => Promise.resolve({ response: new Response(null, { status: 200 }), data });
const refused = (status: number, error: object) =>
  Promise.resolve({ response: new Response(null, { status }), error });

const shifts = {
  name: "shifts",
  label: "Shifts",
  help: "When people are there",
  most: 300,
  text: "Mon-Fri 06:00-14:00",
  usual: "Mon-Fri 07:00-15:30",
};
const hours = (more = {}) => ({
  number: 3,
  may_edit: true,
  fields: [shifts],
  has_file: false,
  off: [],
  off_count: 0,
  changed: null,
  ...more,
});

function show(answer: { may_edit: boolean }, calendar: object = hours({ may_edit: answer.may_edit })) {
  vi.spyOn(client, "GET")
    .mockReset()
    .mockImplementation(((path: string) => ok(path === "/api/calendar" ? calendar : answer)) as never);
  const post = vi.spyOn(client, "POST").mockReset();
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <MemoryRouter>
        <HouseRules tools={null} />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return { post, user: userEvent.setup() };
}

describe("HouseRules", () => {
  it("keeps a changed rule with its reason, and shows what was changed", async () => {
    const { post, user } = show(page());
    const past = {
      number: 2,
      by: "planner",
      at: "2026-11-20T10:00:00Z",
      reason: "slipped",
      changes: ["Safety 2 → 3"],
    };
    post.mockReturnValue(ok(page({ number: 2, history: [past] })) as never);
    const entry = await screen.findByRole("textbox", { name: "Safety on the grip" });
    await user.clear(entry);
    await user.type(entry, "3");
    await user.type(screen.getByRole("textbox", { name: "Why it is changed" }), "slipped");
    await user.click(screen.getByRole("button", { name: "Keep as revision 2" }));
    expect(await screen.findByText("Revision 2: Safety 2 → 3")).toBeInTheDocument();
    expect(post.mock.calls[0]?.[1]).toMatchObject({
      body: { base_number: 1, values: { safety: "3" }, reason: "slipped" },
    });
    expect(screen.queryByRole("button", { name: /Keep as/ })).toBeNull();
  });

  it("tells at the rule what is wrong and loses nothing", async () => {
    const { post, user } = show(page());
    const errors = [
      { field: "safety", message: "Give 1.5 or more." },
      { field: "reason", message: "Write why." },
    ];
    post.mockReturnValue(refused(422, { title: "Look again", errors }) as never);
    const entry = await screen.findByRole("textbox", { name: "Safety on the grip" });
    await user.clear(entry);
    await user.type(entry, "1");
    await user.click(screen.getByRole("button", { name: "Keep as revision 2" }));
    expect(await screen.findByText("Give 1.5 or more.")).toBeInTheDocument();
    expect(screen.getByText("Write why.")).toBeInTheDocument();
    expect(entry).toHaveValue("1");
    await user.click(screen.getByRole("button", { name: "Put back" }));
    expect(entry).toHaveValue("2.00");
  });

  it("offers another look where somebody else was faster", async () => {
    const { post, user } = show(page());
    post.mockReturnValue(refused(409, { title: "Somebody changed the house rules.", errors: [] }) as never);
    await user.type(await screen.findByRole("textbox", { name: "Safety on the grip" }), "5");
    await user.click(screen.getByRole("button", { name: "Keep as revision 2" }));
    expect(await screen.findByText("Somebody changed the house rules.")).toBeInTheDocument();
    expect(screen.getByRole("button", { name: "Look at the rules again" })).toBeInTheDocument();
  });

  it("shows figures alone to who may not change them", async () => {
    show(page({ may_edit: false }));
    expect(await screen.findByText("2.00")).toBeInTheDocument();
    expect(screen.queryByRole("textbox")).toBeNull();
  });
});

describe("ShopHours", () => {
  it("keeps hours as they are typed, with what is pasted from another calendar", async () => {
    const { post, user } = show(page());
    post.mockReturnValue(ok(hours({ number: 4, has_file: true })) as never);
    const line = await screen.findByRole("textbox", { name: "Shifts" });
    expect(screen.queryByRole("button", { name: "Keep these hours" })).toBeNull();
    await user.clear(line);
    await user.type(line, "Sat 06:00-12:00");
    await user.type(screen.getByRole("textbox", { name: /paste its iCalendar text/ }), "BEGIN:VCALENDAR");
    await user.click(screen.getByRole("button", { name: "Keep these hours" }));
    expect(post.mock.calls[0]?.[1]).toEqual({
      body: { base_number: 3, values: { shifts: "Sat 06:00-12:00" }, file: "BEGIN:VCALENDAR" },
    });
    expect(await screen.findByRole("button", { name: "Take the other calendar out" })).toBeInTheDocument();
  });

  it("says at its line what is wrong, and loses nothing", async () => {
    const { post, user } = show(page());
    const wrong = { title: "1", errors: [{ field: "shifts", message: "Write days and hours." }] };
    post.mockReturnValue(refused(422, wrong) as never);
    const line = await screen.findByRole("textbox", { name: "Shifts" });
    await user.clear(line);
    await user.type(line, "mornings");
    await user.click(screen.getByRole("button", { name: "Keep these hours" }));
    expect(await screen.findByText("Write days and hours.")).toBeInTheDocument();
    expect(line).toHaveValue("mornings");
  });

  it("tells what is off, and lets nobody change it who may not", async () => {
    const off = [{ name: "Works closed", begins: "Thu 24 Dec 00:00", ends: "Sat 2 Jan 00:00" }];
    show(page({ may_edit: false }), hours({ may_edit: false, off, off_count: 9 }));
    expect(await screen.findByText("Works closed: Thu 24 Dec 00:00 to Sat 2 Jan 00:00")).toBeInTheDocument();
    expect(screen.getByText("and 8 more")).toBeInTheDocument();
    expect(screen.queryByRole("textbox")).toBeNull();
  });
});
