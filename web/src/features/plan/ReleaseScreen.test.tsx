import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { describe, expect, it, vi } from "vitest";
import { client, type Session } from "../../api/client";
import { plan } from "../../tests/plan";
import { ReleaseScreen } from "./ReleaseScreen";

const cautions = [
  { code: "guards", general: true, lines: [{ text: "The guards are shut.", where: "" }] },
  { code: "chips", general: true, lines: [{ text: "Chips are hot.", where: "" }] },
  {
    code: "corner-1f2e3d4c",
    general: false,
    lines: [
      { text: "It could slip.", where: "Force, side 1; Force, side 2" },
      { text: "It could slip more.", where: "Force, side 2" },
    ],
  },
];
const made = (number: number) => ({
  number,
  revision: number * 3,
  rules: 1,
  by: "planner",
  at: "2026-11-20T10:00:00Z",
  note: "",
  confirmed: ["a", "b"],
});
const page = (more = {}) => ({
  run: plan().run,
  revision: 7,
  rules: 1,
  verdict: "settled",
  reasons: [],
  cautions,
  releases: [],
  ...more,
});
const rows = [{ stop: "Force", label: "Gauge pressure", before: "28.0 bar", after: "29.0 bar" }];
const ok = (data: unknown) => Promise.resolve({ response: new Response(null, { status: 200 }), data });

function show(answer: object, role: Session["role"] = "planner") {
  const get = vi
    .spyOn(client, "GET")
    .mockReset()
    .mockImplementation(((path: string) =>
      ok(
        path.endsWith("/differences")
          ? { before: 1, after: null, rows }
          : path.endsWith("/releases")
            ? answer
            : plan(),
      )) as never);
  const post = vi.spyOn(client, "POST").mockReset();
  const session = { name: "planner", role, demo: false, signed_in: true } as unknown as Session;
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <MemoryRouter initialEntries={["/runs/4/releases"]}>
        <Routes>
          <Route path="/runs/:runId/releases" element={<ReleaseScreen session={session} tools={null} />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return { get, post, user: userEvent.setup() };
}

describe("ReleaseScreen", () => {
  it("releases only when every caution is confirmed, one by one, and sends which", async () => {
    const { post, user } = show(page());
    post.mockReturnValue(
      ok(page({ releases: [made(1)], reasons: ["This draft is release 1 already."] })) as never,
    );
    const button = await screen.findByRole("button", { name: "1 still to confirm" });
    expect(button).toBeDisabled();
    // What always holds is signed with the press; what several stops say of this plan stands once, with its places.
    expect(screen.getByRole("list", { name: "What always holds" })).toHaveTextContent(
      /guards.*Chips are hot/,
    );
    expect(screen.getAllByRole("checkbox")).toHaveLength(1);
    await user.click(screen.getByRole("checkbox", { name: /could slip/ }));
    await user.click(screen.getByRole("button", { name: "Sign, and release draft 7 as release 1" }));
    expect(post.mock.calls[0]?.[1]).toMatchObject({
      body: { base_revision: 7, confirmed: ["guards", "chips", "corner-1f2e3d4c"], note: "" },
    });
    expect(await screen.findByText("Release 1 is at the machine.")).toBeInTheDocument();
    expect(screen.queryByText("This draft is release 1 already.")).toBeNull();
    expect(screen.getAllByText(/draft 3, by planner/)).toHaveLength(2); // at the head, and in the list
  });

  it("tells what keeps it from being released instead of offering it", async () => {
    show(page({ reasons: ["A stop of the plan is stopped: settle it first."] }));
    expect(await screen.findByText(/settle it first/)).toBeInTheDocument();
    expect(screen.queryByRole("checkbox")).toBeNull();
  });

  it("keeps what was confirmed when somebody else was faster, and says so", async () => {
    const { post, user } = show(page({ cautions: cautions.slice(2) }));
    post.mockReturnValue(
      Promise.resolve({
        response: new Response(null, { status: 409 }),
        error: { title: "This draft is release 1 already, by owner.", errors: [] },
      }) as never,
    );
    await user.click(await screen.findByRole("checkbox"));
    await user.click(screen.getByRole("button", { name: /release draft 7/ }));
    expect(await screen.findByRole("alert")).toHaveTextContent("already, by owner");
    expect(screen.getByRole("checkbox")).toBeChecked();
  });

  it("compares a release with the draft, or with the one before", async () => {
    const { get, user } = show(page({ releases: [made(2), made(1)] }), "setter");
    const table = await screen.findByRole("table", { name: "Release 2 and the draft" });
    expect(
      within(table).getByRole("row", { name: "Force Gauge pressure 28.0 bar 29.0 bar" }),
    ).toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: "against 1" }));
    expect(await screen.findByRole("table", { name: "Release 1 and release 2" })).toBeInTheDocument();
    expect(get.mock.calls.at(-1)?.[1]).toMatchObject({
      params: { path: { number: 1 }, query: { other: 2 } },
    });
    expect(screen.queryByRole("checkbox")).toBeNull(); // a setter looks
  });

  it("shows first what changed since the release at the machine", async () => {
    show(page({ releases: [made(2)] }));
    expect(await screen.findByText(/is at the machine, from draft 6.*Draft 7 differs/)).toBeInTheDocument();
    const changed = await screen.findByRole("table", { name: "Release 2 and the draft" });
    const first = screen.getAllByRole("checkbox")[0] as HTMLElement;
    expect(changed.compareDocumentPosition(first) & Node.DOCUMENT_POSITION_FOLLOWING).toBeTruthy();
  });
});
