import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { describe, expect, it, vi } from "vitest";
import { client } from "../../api/client";
import { Trail } from "./Trail";

const entry = (id: number, who: string, what: string, words: string, about = "") => ({
  id,
  at: "2026-03-05T10:00:00Z",
  what,
  who,
  words,
  about,
  address: "192.0.2.7",
});

const answers = (status: number, data: object) =>
  ({
    response: new Response(null, { status }),
    ...(status < 400 ? { data } : { error: data }),
  }) as never;

const shown = () =>
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <MemoryRouter>
        <Trail tools={null} />
      </MemoryRouter>
    </QueryClientProvider>,
  );

describe("Trail", () => {
  it("tells who did what, of what and from where, and earlier entries when they are asked for", async () => {
    const get = vi
      .spyOn(client, "GET")
      .mockResolvedValueOnce(
        answers(200, {
          entries: [
            entry(9, "cleo", "role", "gave another role", "dora: operator, now setter"),
            entry(8, "Ada", "refused", "could not sign in"),
          ],
          more: true,
        }),
      )
      .mockResolvedValueOnce(
        answers(200, { entries: [entry(7, "cleo", "signed-in", "signed in")], more: false }),
      );
    shown();
    expect(await screen.findByText(/gave another role: dora: operator, now setter/)).toBeVisible();
    expect(screen.getAllByText("192.0.2.7")).toHaveLength(2);
    await userEvent.click(screen.getByRole("button", { name: "earlier" }));
    expect(await screen.findByText(/signed in/)).toBeVisible();
    expect(get).toHaveBeenLastCalledWith("/api/trail", { params: { query: { before: 8 } } });
    expect(screen.queryByRole("button", { name: "earlier" })).toBeNull();
  });

  it("says who may read it to who may not", async () => {
    vi.spyOn(client, "GET").mockResolvedValue(
      answers(403, { status: 403, title: "Only an owner manages people." }),
    );
    shown();
    expect(await screen.findByText("Only an owner manages people.")).toBeVisible();
    expect(screen.getByRole("link", { name: "To the bench" })).toHaveAttribute("href", "/");
    expect(screen.queryByRole("button", { name: "Try again" })).toBeNull(); // asking again gives the same answer
  });
});
