import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { client } from "../../api/client";
import { question } from "../../tests/plan";
import { FilePanel } from "./FilePanel";

const line = (number: number, outcome: string, messages: string[] = []) => ({
  line: number,
  name: `Ring ${number}`,
  outcome,
  messages,
});
const ok = (data: unknown) => ({ response: new Response(null, { status: 200 }), data }) as never;
const looked = (data: unknown) => ok(question(data));

function show(mayEdit = true, ...answers: unknown[]) {
  const post = vi.spyOn(client, "POST").mockReset();
  for (const answer of answers) post.mockResolvedValueOnce(answer as never);
  render(
    <QueryClientProvider client={new QueryClient()}>
      <FilePanel kind="ring" title="Boring rings" mayEdit={mayEdit} />
    </QueryClientProvider>,
  );
  return { post, user: userEvent.setup() };
}

async function give(user: ReturnType<typeof userEvent.setup>, text: string) {
  const input = document.querySelector("input[type=file]") as HTMLInputElement;
  const file = new File([text], "rings.csv", { type: "text/csv" });
  await user.upload(input, Object.assign(file, { text: async () => text })); // jsdom's files have no text()
}

const kept = (post: { mock: { calls: unknown[][] } }) =>
  post.mock.calls.map((call) => (call[1] as { body: { keep?: string } }).body.keep ?? "looked");

describe("FilePanel", () => {
  it("saves what is there, and takes nothing from who may only look", () => {
    show(false);
    expect(screen.getByRole("link", { name: "Save boring rings as CSV" })).toHaveAttribute(
      "href",
      "/api/shelf/ring/file",
    );
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("answers every line before anything is kept, then keeps all", async () => {
    const lines = [line(2, "new"), line(3, "changed"), line(4, "same")];
    const { post, user } = show(true, looked({ lines, bad: 0, kept: 0 }), ok({ lines, bad: 0, kept: 2 }));
    await give(user, "name,inner\n");
    expect(await screen.findByText("3 lines: 3 can be taken, 0 cannot.")).toBeInTheDocument();
    expect(screen.getByRole("row", { name: /Ring 4/ })).toHaveTextContent("as it is");
    expect(kept(post)).toEqual(["looked"]);
    await user.click(screen.getByRole("button", { name: "Keep them" }));
    await waitFor(() => expect(screen.getByRole("status")).toHaveTextContent("2 kept."));
    expect(kept(post)).toEqual(["looked", "all"]);
    expect(screen.queryByRole("button", { name: "Keep them" })).toBeNull();
  });

  it("keeps the good lines of a bad file only when asked, and can be left", async () => {
    const lines = [line(2, "new"), line(3, "bad", ["Inner diameter: write a figure in mm."])];
    const { post, user } = show(true, looked({ lines, bad: 1, kept: 0 }));
    await give(user, "name,inner\n");
    expect(await screen.findByText("Inner diameter: write a figure in mm.")).toBeInTheDocument();
    expect(screen.queryByRole("button", { name: "Keep them" })).toBeNull();
    expect(screen.getByRole("button", { name: "Keep the good lines only" })).toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: "leave it" }));
    await waitFor(() => expect(screen.queryByRole("table")).toBeNull());
    expect(kept(post)).toEqual(["looked"]);
  });

  it("offers nothing to keep where every line is bad or as it is", async () => {
    const { user } = show(
      true,
      looked({ lines: [line(2, "same"), line(3, "bad", ["No."])], bad: 1, kept: 0 }),
    );
    await give(user, "name\n");
    await screen.findByText(/2 lines/);
    expect(screen.queryByRole("button", { name: /Keep/ })).toBeNull();
  });

  it("says why a file cannot be read", async () => {
    const error = {
      title: "Bad file",
      errors: [{ field: "text", message: "The first line names no column." }],
    };
    const { user } = show(true, { response: new Response(null, { status: 422 }), error });
    await give(user, "\n");
    expect(await screen.findByRole("alert")).toHaveTextContent("The first line names no column.");
  });
});
