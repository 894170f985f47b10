import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes, useLocation } from "react-router";
import { describe, expect, it, vi } from "vitest";
import { client, type Plan, Refused } from "../../api/client";
import { plan } from "../../tests/plan";
import { Start } from "./Start";
import { useStart } from "./useStart";

const QUESTION = { key: "q", kind: "start", told: "", done: 0, of: 0, before: 0, problem: null };

function Screen({
  act,
  of,
}: {
  act: (action: object, refused: (e: unknown) => void) => Promise<Plan | null>;
  of: Plan;
}) {
  const start = useStart(4, of, act);
  const { state } = useLocation();
  return (
    <>
      <p role="status">{start.told}</p>
      <p>asked: {String(state?.propose ?? false)}</p>
      <Start start={start} plan={of} />
    </>
  );
}

function show(act: Parameters<typeof Screen>[0]["act"], state: object | null = null, of = plan()) {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter initialEntries={[{ pathname: "/runs/4/sides", state }]}>
        <Routes>
          <Route path="/runs/:runId/:stop" element={<Screen act={act} of={of} />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return userEvent.setup();
}

describe("Start", () => {
  it("begins at once, then takes what was settled for that draft", async () => {
    const post = vi.spyOn(client, "POST").mockReset();
    post.mockResolvedValue({
      response: new Response(null, { status: 200 }),
      data: { ...QUESTION, state: "done", answer: { revision: 8, changes: 40 } },
    } as never);
    const act = vi.fn().mockResolvedValue(plan({ revision: 8 }));
    const user = show(act);
    await user.click(screen.getByRole("button", { name: "Propose the set-ups" }));
    await waitFor(() => expect(act).toHaveBeenCalledTimes(2));
    expect(act.mock.calls[0]?.[0]).toEqual({ kind: "start", base: plan().revision });
    expect(act.mock.calls[1]?.[0]).toEqual({ kind: "startSettled", question: "q", base: 8 });
    await waitFor(() => expect(screen.getByRole("status")).toBeEmptyDOMElement());
  });

  it("begins by itself, once, where a run was made with that press", async () => {
    vi.spyOn(client, "POST").mockReset().mockRejectedValue(new Error("gone"));
    const act = vi.fn().mockResolvedValue(null);
    show(act, { propose: true });
    await waitFor(() => expect(act).toHaveBeenCalledOnce());
    expect(screen.getByText("asked: false")).toBeInTheDocument();
  });

  it("tells each fact that is missing as a way to it", async () => {
    const errors = [
      { field: "machine", message: "Choose the machine: it is proposed from." },
      { field: "part.stock.diameter_mm", message: "Give the diameter of the stock." },
    ];
    const act = (_: object, refused: (e: unknown) => void) => {
      refused(new Refused(422, { title: "", status: 422, errors } as never));
      return Promise.resolve(null);
    };
    const user = show(act);
    await user.click(screen.getByRole("button", { name: "Propose the set-ups" }));
    expect(await screen.findByRole("alert")).toHaveTextContent(/Choose the machine.*diameter of the stock/);
    const ways = screen.getAllByRole("link", { name: "go there" }).map((a) => a.getAttribute("href"));
    expect(ways[1]).toBe("/runs/1/part#part.stock.diameter_mm");
  });

  it("is not offered to who may change nothing", () => {
    show(vi.fn(), null, plan({ may_edit: false }));
    expect(screen.queryByRole("button")).toBeNull();
  });
});
