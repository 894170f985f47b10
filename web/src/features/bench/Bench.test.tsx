import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { type BenchRow, client, type Session } from "../../api/client";
import { plan } from "../../tests/plan";
import { Bench } from "./Bench";

const session: Session = { name: "planner", role: "planner", demo: true };

function row(more: Partial<BenchRow> = {}): BenchRow {
  const lines: BenchRow["lines"] = [{ title: "Force", state: "settled", line: "28.0 bar · cap 811 rpm" }];
  return { ...plan().run, verdict: "settled", needs: "nothing is open", lines, ...more };
}

function answers(rows: BenchRow[]) {
  return { response: new Response(null, { status: 200 }), data: rows } as never;
}

function show(who = session) {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={queries}>
      <MemoryRouter>
        <Bench session={who} />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return userEvent.setup();
}

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
    show();
    const carrier = await screen.findByRole("link", { name: /Seal carrier/ });
    expect(carrier).toHaveAttribute("href", "/runs/1/part");
    expect(carrier).toHaveTextContent("240 pieces · Lathe 3");
    expect(carrier).toHaveTextContent("28.0 bar · cap 811 rpm");
    const plug = screen.getByRole("link", { name: /Vent plug/ });
    expect(plug).toHaveTextContent("stopped");
    expect(plug).toHaveTextContent("Next: Force: over the cap");
    expect(plug).toHaveTextContent("an inch plan");
  });

  it("says that this is a demo and as whom one is here", async () => {
    vi.spyOn(client, "GET").mockResolvedValue(answers([row()]));
    show();
    expect(await screen.findByText(/the Larkspur shop is made up/)).toBeInTheDocument();
  });

  it("says nothing of a demo where there is none", async () => {
    vi.spyOn(client, "GET").mockResolvedValue(answers([]));
    show({ name: "Ada", role: "operator", demo: false });
    expect(await screen.findByText("No run is on the bench.")).toBeInTheDocument();
    expect(screen.getByText("Ada · operator")).toBeInTheDocument();
    expect(screen.queryByText(/made up/)).toBeNull();
  });

  it("says so when the server does not answer, and tries again", async () => {
    const get = vi.spyOn(client, "GET").mockRejectedValueOnce(new TypeError("Failed to fetch"));
    const user = show();
    expect(await screen.findByText("The server does not answer.")).toBeInTheDocument();
    get.mockResolvedValueOnce(answers([row()]));
    await user.click(screen.getByRole("button", { name: "Try again" }));
    expect(await screen.findByRole("link", { name: /Seal carrier/ })).toBeInTheDocument();
  });
});
