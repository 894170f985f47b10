import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { type NotebookPage, Refused, type Session } from "../../api/client";
import { NotebookScreen } from "./NotebookScreen";
import * as queries from "./queries";

const PAGE: NotebookPage = {
  count: 31,
  page: 0,
  pages: 2,
  fields: [
    {
      name: "kind",
      label: "Kind",
      help: "What the tool does",
      unit: "",
      kind: "choice",
      options: [{ value: "turn", label: "turning" }],
      required: true,
    },
    { name: "material", label: "Material", help: "", unit: "", kind: "text", options: null, required: true },
    {
      name: "speed_m_min",
      label: "Surface speed",
      help: "",
      unit: "m/min",
      kind: "quantity",
      options: null,
      required: true,
    },
  ],
  lines: [
    {
      id: 9,
      run: "Seal carrier (LH-2041): Rough",
      by: "setter",
      at: "2026-11-20T10:00:00Z",
      said: {
        material: "duplex",
        kind: "turning",
        speed_m_min: "110 m/min",
        chip: "curls",
        on: "2026-11-20",
      },
    },
  ],
};

const idle = { mutate: vi.fn(), error: null, isPending: false, data: undefined, reset: vi.fn() };

function show(role: Session["role"], more: { page?: NotebookPage; write?: object; file?: object } = {}) {
  const ask = vi
    .spyOn(queries, "useNotebook")
    .mockReturnValue({ data: more.page ?? PAGE, isError: false } as never);
  const [write, out, back] = [vi.fn(), vi.fn(), vi.fn()];
  vi.spyOn(queries, "useWriteCut").mockReturnValue({ ...idle, mutate: write, ...more.write } as never);
  vi.spyOn(queries, "useTakeOut").mockReturnValue({ ...idle, mutate: out } as never);
  vi.spyOn(queries, "usePutBack").mockReturnValue({ ...idle, mutate: back } as never);
  vi.spyOn(queries, "useNotebookFile").mockReturnValue({ ...idle } as never);
  vi.spyOn(queries, "useLookAtNotebookFile").mockReturnValue({ ...idle, ...more.file } as never);
  const session = { role, name: role, demo: true, may_look_as: false } as Session;
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <NotebookScreen session={session} tools={null} />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return { ask, write, out, back, user: userEvent.setup() };
}

describe("NotebookScreen", () => {
  beforeEach(() => vi.restoreAllMocks());

  it("lists a cut with where it was kept from", () => {
    show("planner");
    expect(screen.getByRole("row", { name: /duplex/ })).toHaveTextContent("Seal carrier (LH-2041): Rough");
    expect(screen.getByText("31 cuts, the newest first.")).toBeInTheDocument();
  });

  it("begins at the first page again when something else is looked for", async () => {
    const { ask, user } = show("planner");
    await user.click(screen.getByRole("button", { name: "older" }));
    expect(ask.mock.lastCall?.[0].page).toBe(1);
    await user.type(screen.getByRole("searchbox", { name: "Find in the notebook" }), "q");
    expect(ask.mock.lastCall?.[0]).toMatchObject({ page: 0, find: "q" });
  });

  it("asks in inches when inches are chosen", async () => {
    const { ask, user } = show("planner");
    await user.click(screen.getByRole("radio", { name: "inch" }));
    expect(ask.mock.lastCall?.[0].units).toBe("inch");
  });

  it("writes a cut down as it was typed", async () => {
    const { write, user } = show("setter");
    await user.click(screen.getByRole("button", { name: "Write a cut down" }));
    await user.type(screen.getByLabelText("Material"), "C45");
    await user.type(screen.getByLabelText("Surface speed, m/min"), "210");
    await user.click(screen.getByRole("button", { name: "Write it down" }));
    expect(write.mock.calls[0]?.[0]).toEqual({
      kind: "turn",
      stage: "both",
      material: "C45",
      speed_m_min: "210",
    });
  });

  it("tells what is wrong at its field", async () => {
    const errors = [{ field: "speed_m_min", message: "“fast” is not a figure." }];
    const error = new Refused(422, { type: "", title: "", status: 422, errors });
    const { user } = show("setter", { write: { error } });
    await user.click(screen.getByRole("button", { name: "Write a cut down" }));
    expect(screen.getByText("“fast” is not a figure.")).toBeInTheDocument();
  });

  it("lets a planner take a cut out, and put it back", async () => {
    const { out, back, user } = show("planner");
    out.mockImplementation((_, then) => then.onSuccess());
    back.mockImplementation((_, then) => then.onSuccess());
    await user.click(screen.getByRole("button", { name: "take out duplex 2026-11-20" }));
    expect(out.mock.calls[0]?.[0]).toBe(9);
    expect(screen.getByText("duplex, turning, 2026-11-20 is taken out.")).toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: "Put it back" }));
    expect(back.mock.calls[0]?.[0]).toBe(9);
    expect(screen.queryByRole("button", { name: "Put it back" })).toBeNull();
  });

  it("gives a setter no way to take out or to read a file in", () => {
    show("setter");
    expect(screen.queryByRole("button", { name: /take out/ })).toBeNull();
    expect(screen.queryByRole("button", { name: /Look at a file/ })).toBeNull();
    expect(screen.getByRole("link", { name: "Save the notebook as CSV" })).toBeInTheDocument();
  });

  it("gives an operator nothing to write", () => {
    show("operator");
    expect(screen.queryByRole("button", { name: "Write a cut down" })).toBeNull();
  });

  it("teaches where it is empty", () => {
    show("planner", { page: { ...PAGE, count: 0, lines: [], pages: 1 } });
    expect(screen.getByText(/Cuts that worked stand here/)).toBeInTheDocument();
  });
});
