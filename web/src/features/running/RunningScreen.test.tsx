import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { client, type RunningDimension, type RunningPage, type Session } from "../../api/client";
import { heard } from "../../api/contact";
import { unsentWork } from "../../shared/unsentWork";
import { RunningScreen } from "./RunningScreen";

const SESSION: Session = { name: "operator", role: "operator", demo: true, may_look_as: true };

const dimension = (more: Partial<RunningDimension> = {}): RunningDimension => ({
  id: "s1.size.o1",
  name: "Spigot",
  title: "Spigot Ø 84",
  kind: "size",
  unit: "mm",
  expected: "work to 83.971–83.994 mm",
  edge: "main.3",
  level: "good",
  told: "Within the limits to work to.",
  due: 9,
  why: "six of an edge tell whether it drifts",
  last: "83.982 mm",
  chart: {
    pieces: [1, 2, 8],
    values: [83.98, 83.981, 83.982],
    print_low: 83.965,
    print_high: 84,
    work_low: 83.971,
    work_high: 83.994,
    stretches: [{ first: 1, last: 8, begins: 83.98, ends: 83.982, half: 0.003 }],
    signs: [{ piece: 8, words: "outside three spreads" }],
    marks: [{ piece: 2, words: "fresh edge" }],
    forecast: { first: 8, last: 20, now: 83.982, likely: 83.99, low: 83.985, high: 83.995 },
    limit_in: 20,
    limit_sure: 12,
    limit_when: "Mon 1 Mar 09:10",
  },
  advice: {
    number: "−0.008",
    unit: "mm",
    amount_mm: -0.008,
    where: "tool 3, wear offset, X as a diameter",
    why: "It stands off the middle.",
    told: "after piece 8: X −0.008 on tool 3",
    steps: [],
  },
  ...more,
});

const page = (more: Partial<RunningPage> = {}): RunningPage => ({
  run: 1,
  name: "Seal carrier",
  drawing_number: "LH-2041",
  machine: "Lathe 3",
  units: "metric",
  release: { number: 1, by: "planner", at: "2027-03-01T06:00:00Z", replaced: false },
  place: "running",
  may_mark: true,
  lots: [{ key: "s1", name: "Side 1", counted: 8, good: 8, quantity: 240, closed: false }],
  lot: "s1",
  revision: 8,
  head: {
    counted: 8,
    good: 8,
    scrap: 0,
    quantity: 240,
    left: 232,
    done: "done Thu 14:20",
    pace: "8 pieces an hour",
    board: "",
  },
  standing: {
    check: { pieces: 3, dimensions: ["s1.size.o1"], names: "Spigot Ø 84", why: "half of what is sure" },
    edges: [
      {
        key: "main.3",
        station: 3,
        name: "CCMT",
        on_it: 8,
        lasts: 27,
        left: 19,
        share: 0.3,
        told: "8 of 27 pieces, by the plan",
        fresh: [],
        spares: "2 on the shelf, the rest takes 3: not enough",
        short: true,
      },
    ],
    dimensions: [dimension()],
    stops: [],
  },
  still: null,
  log: [],
  instruments: [{ name: "Micrometer", kind: "size" }],
  changed_for: [{ key: "worn", words: "it was worn" }],
  stopped_for: [
    { key: "chips", words: "chips" },
    { key: "other", words: "something else" },
  ],
  counts_itself: false,
  machine_trouble: "",
  ...more,
});

const ok = (data: object) => ({ data, response: new Response(null, { status: 200 }) });
const refused = (status: number, problem: object) => ({
  error: { type: "about:blank", status, title: "No.", errors: [], ...problem },
  response: new Response(null, { status }),
});
const kept = (more: object = {}) =>
  ok({ piece: 9, told: [], level: "good", page: page({ revision: 9 }), ...more });

function open(shown: RunningPage, ...answers: object[]) {
  vi.spyOn(client, "GET").mockImplementation(((path: string) =>
    Promise.resolve(
      path.endsWith("/pulse") ? ok({ revision: shown.revision, replaced: false }) : ok(shown),
    )) as never);
  const post = vi.spyOn(client, "POST");
  for (const one of answers) post.mockResolvedValueOnce(one as never);
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={queries}>
      <MemoryRouter initialEntries={["/runs/1/running"]}>
        <Routes>
          <Route path="/runs/:runId/running" element={<RunningScreen session={SESSION} />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return { post, user: userEvent.setup() };
}

const bodyOf = (post: { mock: { calls: unknown[][] } }, call = 0) =>
  (post.mock.calls[call] as [string, { body: Record<string, unknown> }])[1].body;

describe("RunningScreen", () => {
  beforeEach(() => {
    localStorage.clear();
    heard(new Headers());
  });

  it("says the three things first", async () => {
    open(page());
    const now = await screen.findByRole("region", { name: "Now" });
    expect(now).toHaveTextContent("Next checkin 3pieces · Spigot Ø 84");
    expect(now).toHaveTextContent("Next edge · tool 3, CCMTin 19");
    expect(screen.getByRole("button", { name: "Good piece" })).toBeEnabled();
  });

  it("counts a good piece with one press, and says which it was", async () => {
    const { post, user } = open(page(), kept());
    await user.click(await screen.findByRole("button", { name: "Good piece" }));
    expect(await screen.findByText("Piece 9 is kept.")).toBeInTheDocument();
    expect(bodyOf(post)).toMatchObject({ lot: "s1", release: 1, values: {} });
    expect(unsentWork.all()).toEqual([]);
  });

  it("keeps what was measured with the piece", async () => {
    const { post, user } = open(page(), kept({ told: ["Spigot Ø 84: Within the limits to work to."] }));
    await user.type(await screen.findByLabelText("Spigot Ø 84"), "83.982");
    await user.click(screen.getByRole("button", { name: "Good piece, measured" }));
    expect(await screen.findByText("Spigot Ø 84: Within the limits to work to.")).toBeInTheDocument();
    expect(bodyOf(post)).toMatchObject({ values: { "s1.size.o1": "83.982" }, temp_c: 20 });
    expect(screen.getByLabelText("Spigot Ø 84")).toHaveValue("");
  });

  it("asks about what looks wrong, and keeps it when it is said again", async () => {
    const { post, user } = open(
      page(),
      refused(409, { title: "That is ten times off.", asks: "sure" }),
      kept(),
    );
    await user.type(await screen.findByLabelText("Spigot Ø 84"), "839.8");
    await user.click(screen.getByRole("button", { name: "Good piece, measured" }));
    expect(await screen.findByText(/That is ten times off/)).toBeInTheDocument();
    expect(unsentWork.all()).toEqual([]);
    await user.click(screen.getByRole("button", { name: "Yes, that is right. Keep it" }));
    await waitFor(() => expect(post).toHaveBeenCalledTimes(2));
    expect(bodyOf(post, 1)).toMatchObject({ sure: true, values: { "s1.size.o1": "839.8" } });
  });

  it("says at the field what is wrong, and keeps what was typed", async () => {
    const errors = [{ field: "s1.size.o1", message: "Write a size." }];
    const { user } = open(page(), refused(422, { errors }));
    await user.type(await screen.findByLabelText("Spigot Ø 84"), "wide");
    await user.click(screen.getByRole("button", { name: "Good piece, measured" }));
    expect(await screen.findByText("Write a size.")).toBeInTheDocument();
    expect(screen.getByLabelText("Spigot Ø 84")).toHaveValue("wide");
  });

  it("waits where the server does not answer, and counts what waits", async () => {
    const { post, user } = open(page());
    post.mockRejectedValue(new TypeError("away"));
    await user.click(await screen.findByRole("button", { name: "Good piece" }));
    await waitFor(() => expect(unsentWork.all()).toHaveLength(1));
    expect(await screen.findByText(/The server does not answer/)).toBeInTheDocument();
    expect(screen.getByRole("region", { name: "Now" })).toHaveTextContent("in 2");
    expect(screen.getByText("9")).toBeInTheDocument();
  });

  it("scrap is counted with its reason", async () => {
    const { post, user } = open(page(), kept());
    await user.click(await screen.findByRole("button", { name: "Scrap" }));
    await user.type(screen.getByLabelText("Why, in a few words"), "burr");
    await user.click(screen.getByRole("button", { name: "Keep it" }));
    expect(bodyOf(post)).toMatchObject({ good: false, reason: "burr" });
  });

  it("a stop takes one press, and going on another", async () => {
    const still = page({ still: { since: "2027-03-01T06:00:00Z", why: "chips" } });
    const { post, user } = open(page(), kept({ page: still }), kept());
    await user.click(await screen.findByRole("button", { name: "It stopped" }));
    await user.click(screen.getByRole("button", { name: "chips" }));
    expect(bodyOf(post)).toMatchObject({ what: "stop", why: "chips" });
    await user.click(await screen.findByRole("button", { name: "It goes on" }));
    expect(bodyOf(post, 1)).toMatchObject({ what: "on" });
  });

  it("puts what is to be done at an offset first, unless a check is due", async () => {
    open(page());
    const todo = await screen.findByRole("complementary", { name: "To do" });
    expect(todo).toHaveTextContent(/After piece 8.*Piece 9, if you measure it/);
  });

  it("one press notes that the advice was followed", async () => {
    const { post, user } = open(page(), kept());
    await user.click(await screen.findByRole("button", { name: "Done after piece 8" }));
    expect(bodyOf(post)).toMatchObject({ kind: "offset", edge: "main.3", amount: -0.008 });
  });

  it("a fresh edge is noted with why", async () => {
    const { post, user } = open(page(), kept());
    await user.click(await screen.findByRole("tab", { name: "Edges" }));
    expect(screen.getByText(/not enough/)).toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: "Fresh edge or offset" }));
    await user.click(screen.getByRole("button", { name: "it was worn" }));
    expect(bodyOf(post)).toMatchObject({ kind: "edge", edge: "main.3", why: "worn" });
  });

  it("an edge that is due is changed with one press", async () => {
    const shown = page();
    const [edge] = shown.standing.edges;
    if (edge) edge.left = 0;
    const { post, user } = open(shown, kept());
    await user.click(await screen.findByRole("button", { name: "Fresh edge is in, tool 3" }));
    expect(bodyOf(post)).toMatchObject({ kind: "edge", why: "due" });
  });

  it("says in the chart what it shows", async () => {
    open(page());
    const chart = await screen.findByRole("img", { name: /Chart of Spigot Ø 84: 3 pieces/ });
    expect(chart).toHaveAccessibleName(/12 pieces to the limit for sure/);
    expect(chart).toHaveAccessibleName(/piece 8, outside three spreads/);
    expect(within(chart).getByText("fresh edge")).toBeInTheDocument();
    expect(screen.getByText(/12 for sure, made by Mon 1 Mar 09:10/)).toBeInTheDocument();
  });

  it("of a machine that counts by itself it keeps what was measured of the last piece", async () => {
    const { post, user } = open(
      page({ counts_itself: true }),
      kept({ page: page({ counts_itself: true }) }),
      kept(),
    );
    expect(await screen.findByRole("button", { name: "Lathe 3 counts" })).toBeDisabled();
    await user.type(screen.getByLabelText("Spigot Ø 84"), "83.98");
    await user.click(screen.getByRole("button", { name: "Keep it of piece 8" }));
    expect(post.mock.calls[0]?.[0]).toBe("/api/runs/{run_id}/running/sizes");
    await user.click(screen.getByRole("button", { name: "Scrap" }));
    await user.type(screen.getByLabelText("Why, in a few words"), "burr");
    await user.click(screen.getByRole("button", { name: "Keep it" }));
    expect(bodyOf(post, 1)).toMatchObject({ piece: 8, good: false, why: "burr" });
  });

  it("says what is wrong with a machine, and is counted by hand then", async () => {
    open(page({ machine_trouble: "Lathe 3 broke off. Until it is heard again, count by hand." }));
    expect(await screen.findByText(/count by hand/)).toBeInTheDocument();
    expect(screen.getByRole("button", { name: "Good piece" })).toBeEnabled();
  });

  it("who may not mark watches", async () => {
    open(page({ may_mark: false }));
    expect(await screen.findByRole("button", { name: "Good piece" })).toBeDisabled();
    expect(screen.getByRole("button", { name: "Scrap" })).toBeDisabled();
  });
});
