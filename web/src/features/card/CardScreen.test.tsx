import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import {
  type CardFollows,
  type CardPage,
  type CardReading,
  type CardStep,
  client,
  type Session,
} from "../../api/client";
import { heard } from "../../api/contact";
import { type UnsentWork, unsentWork } from "../../shared/unsentWork";
import { CardScreen } from "./CardScreen";

const SESSION = { name: "setter", role: "setter", demo: false, may_look_as: false } as Session;

function step(id: string, more: Partial<CardStep> = {}): CardStep {
  return {
    id,
    place: "jaws",
    title: `Do ${id}`,
    words: [`How to do ${id}.`],
    side: 0,
    kind: "do",
    caution: "",
    lights: [],
    ask: null,
    ...more,
  };
}

const FEELER = {
  kind: "feeler",
  title: "Feeler",
  instrument: "" as const,
  expected: "predicted 0.030 mm",
  blanks: [
    {
      name: "gap_mm",
      label: "Goes in",
      help: "",
      unit: "mm",
      kind: "quantity",
      options: [],
      usual: "",
      required: true,
    },
  ],
  presets: ["0.000", "0.050"],
  of: "s1",
};

function page(more: Partial<CardPage> = {}): CardPage {
  return {
    run: 1,
    name: "Seal carrier",
    drawing_number: "LH-2041",
    machine: "Lathe 3",
    material: "C45",
    stock: "slug Ø122 mm",
    quantity: 240,
    units: "metric",
    sides: ["Side 1"],
    release: { number: 2, by: "planner", at: "2027-03-01T06:00:00Z", replaced: false },
    place: "ready",
    may_mark: true,
    card: {
      to_set: [{ label: "Pressure", prefix: "", number: "24.3", unit: "bar", side: 0, fact: "pressure" }],
      tools: [],
      steps: [
        step("clean"),
        step("mount", { kind: "caution" }),
        step("feeler", { kind: "read", ask: FEELER }),
      ],
      cautions: [],
    },
    scenes: [],
    instruments: [],
    marks: [],
    readings: [],
    ...more,
  };
}

function follows(more: Partial<CardFollows["told"]> = {}): CardFollows {
  return {
    told: {
      label: "So put into the program",
      prefix: "U ",
      number: "0.100",
      unit: "mm",
      words: ["larger at the floor than at the tip."],
      level: "do",
      done: true,
      steps: [],
      far: "",
      ...more,
    },
    trial: null,
  };
}

function show(card: CardPage, found: CardFollows = follows()) {
  const sent: [string, Record<string, unknown>][] = [];
  const done = {
    replaced: card.release.replaced,
    place: "setting",
    marks: card.marks,
    readings: card.readings,
  };
  const answer = <T,>(data: T) => ({ data, response: new Response(null, { status: 200 }) });
  vi.spyOn(client, "GET").mockImplementation((async (path: string) =>
    answer(path.endsWith("/done") ? done : card)) as never);
  vi.spyOn(client, "POST").mockImplementation((async (
    path: string,
    { body }: { body: Record<string, unknown> },
  ) => {
    sent.push([path.split("/").pop() ?? "", body]);
    if (path.endsWith("/look")) return answer(found);
    done.marks = [
      ...done.marks,
      {
        step: body.step as string,
        title: `Do ${body.step as string}`,
        state: (body.state as "done") ?? "done",
        reason: "",
        by: "setter",
        at: "2027-03-01T06:10:00Z",
      },
    ];
    return answer(done);
  }) as never);
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <MemoryRouter initialEntries={["/runs/1/card"]}>
        <Routes>
          <Route path="/runs/:runId/card" element={<CardScreen session={SESSION} />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return { sent, user: userEvent.setup() };
}

describe("CardScreen", () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    localStorage.clear();
  });

  it("opens at what is to be set, and goes a step on with each tick", async () => {
    const { sent, user } = show(page());
    expect(await screen.findByText("24.3 bar")).toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: "Begin" }));
    expect(screen.getByRole("heading", { name: "Do clean" })).toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: "Done. Next: do mount" }));
    expect(await screen.findByRole("heading", { name: "Do mount" })).toBeInTheDocument();
    expect(sent).toHaveLength(1);
    expect(sent[0]).toEqual(["marks", expect.objectContaining({ step: "clean", state: "done", release: 2 })]);
  });

  it("comes back to the first step that is open", async () => {
    const mark = {
      step: "clean",
      title: "Do clean",
      state: "done" as const,
      reason: "",
      by: "setter",
      at: "2027-03-01T06:10:00Z",
    };
    show(page({ marks: [mark] }));
    expect(await screen.findByRole("heading", { name: "Do mount" })).toBeInTheDocument();
  });

  it("skips with a reason, and never a caution", async () => {
    const { sent, user } = show(page());
    await user.click(await screen.findByRole("button", { name: "Begin" }));
    await user.click(screen.getByRole("button", { name: "skip, and why" }));
    await user.type(screen.getByLabelText("Why it is skipped"), "clean from before");
    await user.click(screen.getByRole("button", { name: "Skip it" }));
    expect(await screen.findByRole("heading", { name: "Do mount" })).toBeInTheDocument();
    expect(sent[0]?.[1]).toMatchObject({ state: "skipped", reason: "clean from before" });
    expect(screen.queryByRole("button", { name: "skip, and why" })).toBeNull();
  });

  it("tells what follows from a reading at once, and keeps it at a press", async () => {
    const { sent, user } = show(page());
    await user.click(await screen.findByRole("button", { name: "Do feeler: open" }));
    expect(screen.getByRole("button", { name: "Write what you read" })).toBeDisabled();
    await user.click(screen.getByRole("button", { name: "0.050" }));
    expect(await screen.findByText(/larger at the floor/)).toBeInTheDocument();
    expect(screen.getByText(/0\.100/)).toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: "Keep it. To the end" }));
    await waitFor(() => expect(sent.at(-1)?.[0]).toBe("readings"));
    expect(sent.at(-1)?.[1]).toMatchObject({ step: "feeler", values: { gap_mm: "0.050" }, sure: true });
  });

  it("reads an instrument into the field", async () => {
    const card = page({ instruments: [{ name: "Leaf gauge", kind: "size" }] });
    const ask = { ...FEELER, instrument: "size" as const, presets: [] };
    card.card.steps = [step("feeler", { kind: "read", ask })];
    const { user } = show(card);
    await user.click(await screen.findByRole("button", { name: "Begin" }));
    vi.spyOn(client, "POST").mockResolvedValueOnce({
      data: { name: "Leaf gauge", text: "0.0471" },
      response: new Response(null, { status: 200 }),
    } as never);
    await user.click(screen.getByRole("button", { name: "read Leaf gauge" }));
    expect(await screen.findByDisplayValue("0.0471")).toBeInTheDocument();
  });

  it("asks about a reading that is far off before it counts", async () => {
    const { sent, user } = show(page(), follows({ far: "0.030 mm was predicted. Is that right?" }));
    await user.click(await screen.findByRole("button", { name: "Do feeler: open" }));
    await user.type(screen.getByLabelText("Goes in"), "0.5");
    expect(await screen.findByText(/Is that right/)).toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: /^Keep it/ }));
    expect(sent.filter(([path]) => path === "readings")).toHaveLength(0);
    await user.click(screen.getByRole("button", { name: "Yes, that is right. Keep it" }));
    await waitFor(() => expect(sent.filter(([path]) => path === "readings")).toHaveLength(1));
  });

  it("stays where something is left to do", async () => {
    const { user } = show(page(), follows({ done: false }));
    await user.click(await screen.findByRole("button", { name: "Do feeler: open" }));
    await user.click(screen.getByRole("button", { name: "0.050" }));
    await user.click(await screen.findByRole("button", { name: "Keep it, and read again" }));
    expect(screen.getByRole("heading", { name: "Do feeler" })).toBeInTheDocument();
  });

  it("is watched by who plans, and says that a release was replaced", async () => {
    const replaced = { number: 2, by: "planner", at: "2027-03-01T06:00:00Z", replaced: true };
    const { user } = show(page({ may_mark: false, release: replaced }));
    expect(await screen.findByText(/This release was replaced/)).toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: "Begin" }));
    expect(screen.getByRole("button", { name: "Next: do mount" })).toBeInTheDocument();
    expect(screen.queryByRole("button", { name: /^Done/ })).toBeNull();
  });

  it("is on paper as a whole while the browser prints", async () => {
    show(page());
    await screen.findByRole("button", { name: "Begin" });
    expect(screen.queryByText("1 Do clean")).toBeNull();
    act(() => void window.dispatchEvent(new Event("beforeprint")));
    for (const words of ["1 Do clean", "2 Do mount", "3 Do feeler"])
      expect(screen.getByText(words)).toBeInTheDocument();
    act(() => void window.dispatchEvent(new Event("afterprint")));
    expect(screen.queryByText("1 Do clean")).toBeNull();
  });

  it("stands two hundred steps", async () => {
    const card = page();
    card.card.steps = Array.from({ length: 200 }, (_, i) => step(`n${i}`));
    const { user } = show(card);
    await screen.findByRole("button", { name: "Begin" });
    const line = within(screen.getByRole("list", { name: "Steps" }));
    expect(line.getAllByRole("button")).toHaveLength(200);
    await user.click(line.getByRole("button", { name: "Do n199: open" }));
    expect(screen.getByText(/Step 200 of 200/)).toBeInTheDocument();
    expect(screen.getByRole("button", { name: "Done. To the end" })).toBeInTheDocument();
  });

  it("keeps what is done without network, says so, and sends it once in its order", async () => {
    const { sent, user } = show(page());
    await user.click(await screen.findByRole("button", { name: "Begin" }));
    const answers = vi.mocked(client.POST).getMockImplementation();
    vi.mocked(client.POST).mockImplementation((() =>
      Promise.reject(new TypeError("Failed to fetch"))) as never);
    await user.click(screen.getByRole("button", { name: "Done. Next: do mount" }));
    await user.click(await screen.findByRole("button", { name: "Done. Next: do feeler" }));
    expect(await screen.findByText(/2 steps wait here/)).toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: "0.050" }));
    await user.click(await screen.findByRole("button", { name: /^Keep it here, not judged yet/ }));
    expect(await screen.findByText(/Do not cut before the server has/)).toHaveTextContent("do feeler");
    // Read once more on the same tablet, which knows of the first.
    await user.click(screen.getByRole("button", { name: "Do feeler: waits" }));
    await user.click(screen.getByRole("button", { name: "nothing goes in" }));
    await user.click(await screen.findByRole("button", { name: /^Keep it here, not judged yet/ }));
    expect(sent).toEqual([]);
    vi.mocked(client.POST).mockImplementation(answers as never);
    heard(new Headers());
    await waitFor(() =>
      expect(sent.map(([path]) => path)).toEqual(["marks", "marks", "readings", "readings"]),
    );
    expect(sent.map(([, body]) => body.step)).toEqual(["clean", "mount", "feeler", "feeler"]);
    expect(sent[3]?.[1]).toMatchObject({ seen: 1 });
    expect(sent[2]?.[1]).toMatchObject({ sure: false, seen: 0, at: expect.stringMatching(/^20/) });
    await waitFor(() => expect(screen.queryByText(/not judged yet|steps wait here/)).toBeNull());
  });

  it("asks about what waited and is far off, and says why what waited is refused", async () => {
    const waited = (step: string, more: Partial<UnsentWork>): UnsentWork => ({
      key: step,
      person: "setter",
      runId: 1,
      run: "Seal carrier",
      release: 2,
      step,
      units: "metric",
      at: "2027-03-01T06:10:00Z",
      doing: { values: { gap_mm: "0.9" }, instrument: "", sure: false, seen: 0 },
      ...more,
    });
    unsentWork.put(waited("feeler", { asked: "0.9 mm, predicted 0.03. Is that right?" }));
    unsentWork.put(waited("clean", { refused: "This run is put away." }));
    const { sent, user } = show(page());
    expect(await screen.findByText(/This run is put away/)).toBeInTheDocument();
    expect(sent).toEqual([]);
    await user.click(screen.getByRole("button", { name: "It is right: keep it" }));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.[1]).toMatchObject({ step: "feeler", sure: true });
    await user.click(screen.getByRole("button", { name: "Throw it away" }));
    expect(screen.queryByText(/This run is put away/)).toBeNull();
    expect(unsentWork.all()).toEqual([]);
  });

  it("says where two read a step without knowing of each other", async () => {
    const reading = (by: string, shown: string, twice: boolean): CardReading => ({
      step: "feeler",
      title: "Do feeler",
      kind: "feeler",
      shown,
      instrument: "",
      twice,
      by,
      at: "2027-03-01T06:10:00Z",
      follows: follows(),
    });
    const { user } = show(
      page({ readings: [reading("setter", "0.030 mm", true), reading("operator", "0.050 mm", true)] }),
    );
    await user.click(await screen.findByRole("button", { name: "Do feeler: open" }));
    expect(screen.getByText(/Read twice/)).toHaveTextContent(/0.030 mm by setter.*0.050 mm by operator/);
  });
});
