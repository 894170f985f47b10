import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { client, type HistoryEntry, type Session } from "../../api/client";
import { plan } from "../../tests/plan";
import { HistoryScreen } from "./HistoryScreen";

const ok = (data: unknown) => ({ response: new Response(null, { status: 200 }), data }) as never;

function entry(revision: number, text: string): HistoryEntry {
  return { revision, text, by: "ada", at: "2026-11-25T14:02:00Z", path: "x", is_reversal: false };
}

function show(entries: HistoryEntry[], role: Session["role"] = "planner", first = 0) {
  vi.spyOn(client, "GET").mockImplementation((async (path: string) =>
    path.endsWith("/history")
      ? ok({ entries, more: false, total: entries.length, first })
      : ok(plan({ revision: entries.length }))) as never);
  const post = vi.spyOn(client, "POST");
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <MemoryRouter initialEntries={["/runs/1/history"]}>
        <Routes>
          <Route
            path="/runs/:runId/history"
            element={
              <HistoryScreen session={{ name: "ada", role, demo: false, may_look_as: false }} tools={null} />
            }
          />
          <Route path="/runs/:runId" element={<p>the plan</p>} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return { user: userEvent.setup(), post };
}

const EDITS = [
  entry(2, "undone: Gauge pressure 20 bar → 18 bar"),
  entry(1, "Gauge pressure 18 bar → 20 bar"),
];

describe("HistoryScreen", () => {
  beforeEach(() => {
    vi.restoreAllMocks();
  });

  it("tells each edit as a sentence with who and when, and leads to the plan as it was", async () => {
    show(EDITS);
    const line = (await screen.findByText(EDITS[1]?.text ?? "")).closest("li");
    expect(line).toHaveTextContent("ada, ");
    expect(screen.getAllByRole("link", { name: "look at" }).map((l) => l.getAttribute("href"))).toEqual([
      "/runs/1?at=2",
      "/runs/1?at=1",
      "/runs/1?at=0",
    ]);
  });

  it("leads to no draft that was kept in an earlier form, and tells what was done", async () => {
    show(EDITS, "planner", 2);
    expect(await screen.findByText(EDITS[1]?.text ?? "")).toBeInTheDocument();
    expect(screen.getAllByRole("link", { name: "look at" }).map((l) => l.getAttribute("href"))).toEqual([
      "/runs/1?at=2",
    ]);
  });

  it("brings an earlier draft back as an edit that rests on what was looked at", async () => {
    const { user, post } = show(EDITS);
    post.mockResolvedValue(ok(plan({ revision: 3 })));
    expect(await screen.findByRole("button", { name: "bring back draft 1" })).toBeInTheDocument();
    expect(screen.queryByRole("button", { name: "bring back draft 2" })).toBeNull(); // it is the plan as it is
    await user.click(screen.getByRole("button", { name: "bring back draft 0" }));
    expect(post.mock.lastCall?.[1]).toMatchObject({ body: { revision: 0, base_revision: 2 } });
    expect(await screen.findByText("the plan")).toBeInTheDocument();
  });

  it("says why a draft was not brought back", async () => {
    const { user, post } = show(EDITS);
    const said = { title: "Somebody changed the plan since you looked.", status: 409, type: "", errors: [] };
    post.mockResolvedValue({ response: new Response(null, { status: 409 }), error: said } as never);
    await user.click(await screen.findByRole("button", { name: "bring back draft 0" }));
    expect(await screen.findByRole("alert")).toHaveTextContent("Somebody changed the plan");
  });

  it("lets who may only look, look", async () => {
    show(EDITS, "operator");
    expect(await screen.findAllByRole("link", { name: "look at" })).toHaveLength(3);
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("teaches where nothing has been changed yet", async () => {
    show([]);
    expect(await screen.findByText(/Nothing has been changed yet/)).toBeInTheDocument();
  });
});
