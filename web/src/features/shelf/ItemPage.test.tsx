import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { client, type Effects, type Item, type ItemField } from "../../api/client";
import { question } from "../../tests/plan";
import { ItemPage } from "./ItemPage";

function field(name: string, more: Partial<ItemField> = {}): ItemField {
  return {
    name,
    label: name,
    help: "What it is",
    where: "Where it stands",
    group: "The lathe",
    kind: "quantity",
    unit: "rpm",
    value: 4500,
    text: "4 500",
    edit_text: "4500",
    options: null,
    optional: false,
    typical: false,
    ...more,
  };
}

function item(more: Partial<Item> = {}): Item {
  return {
    kind: "machine",
    noun: "machine",
    key: "lathe-3",
    units: "metric",
    revision: 2,
    may_edit: true,
    fields: [
      field("Name", { kind: "text", unit: "", value: "Lathe 3", text: "Lathe 3", edit_text: "Lathe 3" }),
      field("Top speed"),
      field("Stations", { unit: "", text: "12", edit_text: "12", value: 12, typical: true }),
    ],
    chart: null,
    errors: [],
    runs: [{ id: 1, name: "Seal carrier", drawing_number: "LH-2041", text: "", verdict: "settled" }],
    changes: [],
    life: null,
    may_note: true,
    ...more,
  };
}

const ok = (data: unknown) => ({ response: new Response(null, { status: 200 }), data }) as never;
const no = (status: number, error: unknown) => ({ response: new Response(null, { status }), error }) as never;

/** The item for whoever asks for it; nothing was read at a card with it. */
const answering = (kept: Item) =>
  (async (path: string) => ok(path.endsWith("/readings") ? [] : kept)) as never;

function show(kept: Item, preview: Partial<Item> = {}, effects: Effects = { effects: [], takes: 1 }) {
  vi.spyOn(client, "GET").mockImplementation(answering(kept));
  const post = vi
    .spyOn(client, "POST")
    .mockImplementation((async (path: string) =>
      path.endsWith("/effects") ? ok(question(effects)) : ok({ ...kept, ...preview })) as never);
  const patch = vi.spyOn(client, "PATCH").mockResolvedValue(ok({ ...kept, revision: 3 }));
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <ItemPage kind="machine" itemKey="lathe-3" units="metric" />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return { user: userEvent.setup(), post, patch };
}

describe("ItemPage", () => {
  beforeEach(() => {
    vi.restoreAllMocks();
  });

  it("shows what each figure is and where it is found", async () => {
    show(item());
    const row = (await screen.findByLabelText("Top speed, rpm")).closest("[data-field]") as HTMLElement;
    expect(row).toHaveTextContent("What it is");
    expect(row).toHaveTextContent("Where it stands");
    expect(screen.queryByRole("button", { name: "Keep the change" })).toBeNull();
  });

  it("shows what would move before anything is kept, then keeps on what was looked at", async () => {
    const moved = { id: 1, name: "Seal carrier", drawing_number: "LH-2041", verdict: "settled" };
    const { user, post, patch } = show(
      item(),
      {},
      { effects: [{ ...moved, text: "cap 811 rpm → 790 rpm" }], takes: 1 },
    );
    const speed = await screen.findByLabelText("Top speed, rpm");
    await user.clear(speed);
    await user.type(speed, "4000{Enter}");
    const slip = screen.getByRole("complementary", { name: "What it moves" });
    expect(await within(slip).findByText("cap 811 rpm → 790 rpm")).toBeInTheDocument();
    // Typing slowly asks for what is there so far, too.
    const asked = expect.objectContaining({ key: "lathe-3", fields: { "Top speed": "4000" } });
    await waitFor(() =>
      expect(post.mock.calls.map((call) => call[1])).toContainEqual(expect.objectContaining({ body: asked })),
    );
    expect(post.mock.lastCall?.[1]).toMatchObject({ body: { fields: { "Top speed": "4000" } } });
    expect(patch).not.toHaveBeenCalled();
    await user.click(screen.getByRole("button", { name: "Keep the change" }));
    expect(patch.mock.lastCall?.[1]).toMatchObject({
      body: { fields: { "Top speed": "4000" }, base_revision: 2, confirmed: [] },
    });
    expect(await screen.findByText("Kept.")).toBeInTheDocument();
  });

  it("says at the field what is wrong, with the text still there", async () => {
    const { user } = show(item(), { errors: [{ field: "Top speed", message: "“fast” is not a figure." }] });
    const speed = await screen.findByLabelText("Top speed, rpm");
    await user.clear(speed);
    await user.type(speed, "fast{Enter}");
    expect(await screen.findByText("“fast” is not a figure.")).toBeInTheDocument();
    expect(speed).toHaveValue("fast");
  });

  it("puts back what was there", async () => {
    const { user } = show(item());
    const speed = await screen.findByLabelText("Top speed, rpm");
    await user.clear(speed);
    await user.type(speed, "4000{Enter}");
    await user.click(screen.getByRole("button", { name: "put back" }));
    expect(speed).toHaveValue("4 500");
    expect(screen.queryByRole("button", { name: "Keep the change" })).toBeNull();
  });

  it("takes a typical figure as the shop's own when that is said", async () => {
    const { user, patch } = show(item());
    await user.click(await screen.findByRole("button", { name: "it is ours: Stations" }));
    expect(screen.queryByText("typical")).toBeNull();
    await user.click(screen.getByRole("button", { name: "Keep the change" }));
    expect(patch.mock.lastCall?.[1]).toMatchObject({ body: { confirmed: ["Stations"] } });
  });

  it("tells both values of a conflict; keeping again rests on what is there now", async () => {
    const { user, patch } = show(item());
    patch.mockResolvedValueOnce(
      no(409, {
        title: "Top speed: somebody changed this.",
        status: 409,
        theirs: "4 400 rpm",
        yours: "4 000 rpm",
      }),
    );
    const speed = await screen.findByLabelText("Top speed, rpm");
    await user.clear(speed);
    await user.type(speed, "4000{Enter}");
    await user.click(screen.getByRole("button", { name: "Keep the change" }));
    expect(await screen.findByRole("alert")).toHaveTextContent("Theirs: 4 400 rpm. Yours: 4 000 rpm.");
    vi.mocked(client.GET).mockImplementation(answering(item({ revision: 5 })));
    await user.click(screen.getByRole("button", { name: "Keep the change" }));
    await waitFor(() => expect(patch.mock.lastCall?.[1]).toMatchObject({ body: { base_revision: 5 } }));
  });

  it("shows figures and no fields to who may only look", async () => {
    show(item({ may_edit: false }));
    expect(await screen.findByText("4 500")).toBeInTheDocument();
    expect(screen.queryByRole("textbox")).toBeNull();
    expect(screen.queryByRole("button")).toBeNull();
  });
});
