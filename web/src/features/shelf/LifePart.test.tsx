import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { client, type Item } from "../../api/client";
import { LifePart } from "./LifePart";

const set: Item = {
  kind: "jaw_set",
  noun: "jaw set",
  key: "set-7",
  units: "metric",
  revision: 2,
  may_edit: true,
  fields: [],
  chart: null,
  errors: [],
  runs: [],
  changes: [],
  life: [{ on: "2026-11-13", text: "refitted, to 84.000 mm: runout 0.01", by: "setter" }],
  may_note: true,
};

const ok = { response: new Response(null, { status: 200 }), data: set } as never;
const wrong = (field: string, message: string) =>
  ({
    response: new Response(null, { status: 422 }),
    error: { title: "Look at the fields", errors: [{ field, message }] },
  }) as never;

function show(more: Partial<Item> = {}, units: "metric" | "inch" = "metric", answer = ok) {
  const post = vi.spyOn(client, "POST").mockResolvedValue(answer);
  render(
    <QueryClientProvider client={new QueryClient()}>
      <LifePart item={{ ...set, ...more }} units={units} />
    </QueryClientProvider>,
  );
  return { post, user: userEvent.setup() };
}

async function happened(user: ReturnType<typeof userEvent.setup>, what: string) {
  await user.click(screen.getByRole("button", { name: /What happened/ }));
  await user.click(await screen.findByRole("option", { name: what }));
}

describe("LifePart", () => {
  it("tells what happened, when and by whom", () => {
    show();
    const entry = screen.getByRole("listitem");
    expect(entry).toHaveTextContent("13 Nov 2026");
    expect(entry).toHaveTextContent("runout 0.01");
    expect(entry).toHaveTextContent("setter");
  });

  it("asks for what each event needs and for nothing else", async () => {
    const { user } = show();
    expect(screen.getByLabelText("Bored to, mm")).toBeInTheDocument();
    expect(screen.getByLabelText("Taken off a side, mm")).toBeInTheDocument();
    await happened(user, "lent");
    expect(screen.getByLabelText("To whom")).toBeInTheDocument();
    expect(screen.queryByLabelText("Bored to, mm")).toBeNull();
    await happened(user, "damaged");
    expect(screen.getByLabelText("Deepest mark a side, mm")).toBeInTheDocument();
    await happened(user, "bored anew");
    expect(screen.getByLabelText("Bored to, mm")).toBeInTheDocument();
    expect(screen.queryByLabelText("Deepest mark a side, mm")).toBeNull();
  });

  it("notes it in the units shown, and is empty for the next", async () => {
    const { post, user } = show({}, "inch");
    await user.type(screen.getByLabelText("Bored to, in"), "3.307");
    await user.type(screen.getByLabelText("Taken off a side, in"), "0.006");
    await user.click(screen.getByRole("button", { name: "Note it" }));
    await waitFor(() => expect(screen.getByLabelText("Bored to, in")).toHaveValue(""));
    expect(post).toHaveBeenCalledExactlyOnceWith(
      "/api/shelf/jaw_set/items/{key}/life",
      expect.objectContaining({
        params: { path: { key: "set-7" } },
        body: { what: "recut", size: "3.307", removal: "0.006", note: null, units: "inch" },
      }),
    );
  });

  it("answers at the field and loses nothing", async () => {
    const { user } = show({}, "metric", wrong("removal", "More than the wall that was left."));
    await user.type(screen.getByLabelText("Bored to, mm"), "84");
    await user.type(screen.getByLabelText("Taken off a side, mm"), "9");
    await user.click(screen.getByRole("button", { name: "Note it" }));
    expect(await screen.findByText("More than the wall that was left.")).toBeInTheDocument();
    expect(screen.getByLabelText("Taken off a side, mm")).toHaveValue("9");
    expect(screen.getByLabelText("Bored to, mm")).toHaveValue("84");
  });

  it("can only be read by who may not note", () => {
    show({ may_note: false });
    expect(screen.getByRole("listitem")).toBeInTheDocument();
    expect(screen.queryByRole("button")).toBeNull();
  });
});
