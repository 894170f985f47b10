import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { type BenchPage, type BenchRow, client, type Session } from "../../api/client";
import { plan } from "../../tests/plan";
import { Bench } from "./Bench";

const session: Session = { name: "planner", role: "planner", demo: true, may_look_as: true };

function row(more: Partial<BenchRow> = {}): BenchRow {
  const lines: BenchRow["lines"] = [
    { key: "Force", title: "Force", state: "settled", line: "28.0 bar · cap 811 rpm" },
  ];
  const figures = [
    { pressure: "28.0 bar", clamp: "800 rpm", bore: "84.00 mm", depth: "", minutes: "6.1 min" },
  ];
  return { ...plan().run, verdict: "settled", needs: "", next: "", lines, figures, ...more };
}

function answers(rows: BenchRow[], more: Partial<BenchPage> = {}) {
  const page = { rows, total: rows.length, page: 0, page_size: 40, planning: rows.length, away: 3, ...more };
  return { response: new Response(null, { status: 200 }), data: page } as never;
}

function show(who = session) {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={queries}>
      <MemoryRouter>
        <Bench session={who} tools={<p>tools</p>} />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return userEvent.setup();
}

const rowOf = async (name: string) =>
  (await screen.findByRole("link", { name })).closest("li") as HTMLElement;

describe("Bench", () => {
  beforeEach(() => {
    vi.restoreAllMocks();
  });

  it("shows every run with how it stands and what it needs next", async () => {
    const stopped = row({
      id: 2,
      name: "Vent plug",
      verdict: "stopped",
      needs: "Force: over the cap",
      units: "inch",
    });
    vi.spyOn(client, "GET").mockResolvedValue(answers([row(), stopped]));
    const user = show();
    const carrier = await rowOf("Seal carrier");
    expect(within(carrier).getByRole("link")).toHaveAttribute("href", "/runs/1");
    expect(carrier).toHaveTextContent("240 pieces · Lathe 3");
    expect(carrier).toHaveTextContent("Settled. Next: release it for the machine.");
    const figures = within(carrier).getByLabelText("Figures");
    expect(
      within(figures)
        .getAllByRole("definition")
        .map((d) => d.textContent),
    ).toEqual(["28.0 bar", "800 rpm", "84.00 mm", "–", "6.1 min"]);
    expect(carrier).not.toHaveTextContent("cap 811 rpm");
    const plug = await rowOf("Vent plug");
    expect(plug).toHaveTextContent("Stopped. Next: Force: over the cap");
    await user.click(within(plug).getByRole("button", { name: "all details of Vent plug" }));
    expect(plug).toHaveTextContent("28.0 bar · cap 811 rpm");
    expect(plug).toHaveTextContent("an inch plan");
  });

  it("tells sides apart, and what comes next once", async () => {
    const line = (key: string, title: string, side: number | null, text: string) =>
      ({ key, title, side, state: "settled", line: text }) as const;
    const lines = [
      line("part", "Part", null, "duplex"),
      line("hold-s1", "Hold", 0, "Ø122"),
      line("hold-kx", "Hold", 1, "Ø84"),
      line("force-kx", "Force", 1, "over the cap"),
    ];
    const needs = "Force 2: over the cap";
    vi.spyOn(client, "GET").mockResolvedValue(answers([row({ lines, needs, next: "force-kx" })]));
    const user = show();
    const told = await rowOf("Seal carrier");
    await user.click(within(told).getByRole("button", { name: "all details of Seal carrier" }));
    expect(
      within(told)
        .getAllByRole("term")
        .map((t) => t.textContent)
        .slice(5),
    ).toEqual(["Set-ups", "Part", "Hold 1", "Hold 2"]);
    expect(told).toHaveTextContent("Next: Force 2: over the cap");
  });

  it("says that this is a demo and as whom one is here", async () => {
    vi.spyOn(client, "GET").mockResolvedValue(answers([row()]));
    show();
    expect(await screen.findByText(/the Larkspur shop is made up/)).toBeInTheDocument();
  });

  it("says nothing of a demo where there is none", async () => {
    vi.spyOn(client, "GET").mockResolvedValue(answers([]));
    show({ name: "Ada", role: "operator", demo: false, may_look_as: false });
    expect(await screen.findByText(/The bench is empty/)).toBeInTheDocument();
    expect(screen.queryByRole("button", { name: /run/ })).toBeNull(); // who looks makes none
    expect(screen.queryByText(/made up/)).toBeNull();
  });

  it("says so when the server does not answer, and tries again", async () => {
    const get = vi.spyOn(client, "GET").mockRejectedValueOnce(new TypeError("Failed to fetch"));
    const user = show();
    expect(await screen.findByText("The server does not answer.")).toBeInTheDocument();
    get.mockResolvedValueOnce(answers([row()]));
    await user.click(screen.getByRole("button", { name: "Try again" }));
    expect(await rowOf("Seal carrier")).toBeInTheDocument();
  });

  it("finds by any word, and among what is put away", async () => {
    const get = vi.spyOn(client, "GET").mockResolvedValue(answers([row()]));
    const user = show();
    await rowOf("Seal carrier");
    get.mockResolvedValue(answers([]));
    await user.type(screen.getByRole("searchbox"), "shaft");
    expect(await screen.findByText("No run here has all of these words.")).toBeInTheDocument();
    await user.click(screen.getByRole("radio", { name: "Put away 3" }));
    await waitFor(() =>
      expect(get.mock.lastCall?.[1]).toEqual({
        params: { query: { find: "shaft", put_away: true, page: 0 } },
      }),
    );
    get.mockResolvedValue(answers([row()]));
    await user.click(screen.getByRole("button", { name: "Show all" }));
    expect(await rowOf("Seal carrier")).toBeInTheDocument();
  });

  it("goes through many runs in pages", async () => {
    const get = vi.spyOn(client, "GET").mockResolvedValue(answers([row()], { total: 81 }));
    const user = show();
    expect(await screen.findByText(/1 to 40 of 81/)).toBeInTheDocument();
    expect(screen.getByRole("button", { name: "Before" })).toBeDisabled();
    await user.click(screen.getByRole("button", { name: "After" }));
    await user.click(screen.getByRole("button", { name: "After" }));
    expect(await screen.findByText(/81 to 81 of 81/)).toBeInTheDocument();
    expect(screen.getByRole("button", { name: "After" })).toBeDisabled();
    expect(get.mock.lastCall?.[1]).toMatchObject({ params: { query: { page: 2 } } });
  });

  const menu = async (user: ReturnType<typeof show>, action: string) => {
    await user.click(await screen.findByRole("button", { name: "more to do with Seal carrier" }));
    await user.click(await screen.findByRole("menuitem", { name: action }));
  };
  const ok = (data: unknown) => ({ response: new Response(null, { status: 200 }), data }) as never;

  it("puts a run away by an edit, and tells why where that does not go", async () => {
    vi.spyOn(client, "GET").mockResolvedValue(answers([row({ revision: 4 })]));
    const post = vi.spyOn(client, "POST").mockResolvedValue({
      response: new Response(null, { status: 409 }),
      error: { title: "Somebody changed this since you looked.", status: 409, type: "", errors: [] },
    } as never);
    const user = show();
    await menu(user, "Put away");
    expect(post.mock.lastCall?.[1]).toMatchObject({
      body: { path: "put_away", value: true, base_revision: 4 },
    });
    expect(await screen.findByRole("alert")).toHaveTextContent("Somebody changed this");
  });

  it("asks once more before it deletes, and offers no delete of what was released", async () => {
    vi.spyOn(client, "GET").mockResolvedValue(answers([row({ revision: 4 })]));
    const remove = vi.spyOn(client, "DELETE").mockResolvedValue(ok(undefined));
    const user = show();
    await menu(user, "Delete …");
    expect(screen.getByRole("dialog")).toHaveTextContent("its history of 4 edits");
    expect(remove).not.toHaveBeenCalled();
    await user.click(screen.getByRole("button", { name: "Delete it for good" }));
    await waitFor(() => expect(remove).toHaveBeenCalledOnce());
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  });

  it("offers no delete of what was released", async () => {
    vi.spyOn(client, "GET").mockResolvedValue(answers([row({ released: true })]));
    const user = show();
    await user.click(await screen.findByRole("button", { name: "more to do with Seal carrier" }));
    expect(await screen.findByRole("menuitem", { name: "Put away" })).toBeInTheDocument();
    expect(screen.queryByRole("menuitem", { name: "Delete …" })).toBeNull();
  });

  it("copies under another name, and says at the field what is wrong", async () => {
    vi.spyOn(client, "GET").mockResolvedValue(answers([row()]));
    const wrong = { field: "name", message: "Name cannot be empty." };
    vi.spyOn(client, "POST").mockResolvedValue({
      response: new Response(null, { status: 422 }),
      error: { title: "", status: 422, type: "", errors: [wrong] },
    } as never);
    const user = show();
    await menu(user, "Copy");
    expect(screen.getByLabelText("Name")).toHaveValue("Seal carrier, copy");
    await user.clear(screen.getByLabelText("Name"));
    await user.click(screen.getByRole("button", { name: "Copy it" }));
    expect(await screen.findByText("Name cannot be empty.")).toBeInTheDocument();
    expect(screen.getByLabelText("Name")).toBeInvalid();
  });

  it("renames by edits of what was changed only", async () => {
    vi.spyOn(client, "GET").mockResolvedValue(answers([row({ revision: 4 })]));
    const post = vi.spyOn(client, "POST").mockResolvedValue(ok({ revision: 5 }));
    const user = show();
    await menu(user, "Rename");
    await user.type(screen.getByLabelText("Name"), " B");
    await user.click(screen.getByRole("button", { name: "Keep" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(post).toHaveBeenCalledOnce();
    expect(post.mock.lastCall?.[1]).toMatchObject({
      body: { path: "name", value: "Seal carrier B", base_revision: 4 },
    });
  });
});
