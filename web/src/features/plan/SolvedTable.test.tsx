import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { client } from "../../api/client";
import { question } from "../../tests/plan";
import { SolvedTable } from "./SolvedTable";

const table = {
  name: "contact",
  title: "The real contact",
  group: "",
  head: ["jaws", "to size"],
  words: "the elastic wall in rigid jaws.",
  rows: [
    { label: "pie", cells: ["0.004 mm"], chosen: true, path: null, value: null, takable: false, why_not: "" },
  ],
};

function show(answer: Promise<unknown>) {
  const get = vi
    .spyOn(client, "POST")
    .mockReset()
    .mockReturnValue(answer as never);
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const at = (revision: number) => (
    <QueryClientProvider client={queries}>
      <SolvedTable check="real-contact" of={{ runId: 4, setup: "s2", units: "metric", revision }} />
    </QueryClientProvider>
  );
  return { get, at, ...render(at(7)) };
}

const ok = (data: unknown) =>
  Promise.resolve({ response: new Response(null, { status: 202 }), data: question(data) });

describe("SolvedTable", () => {
  it("says that it is being solved until it arrives, and for which draft it was", async () => {
    show(ok({ revision: 7, table }));
    expect(await screen.findByText("Solving the real contact …")).toBeInTheDocument();
    expect(await screen.findByRole("table", { name: "The real contact" })).toHaveTextContent("0.004 mm");
    expect(screen.getByText("Solved for draft 7: the elastic wall in rigid jaws.")).toBeInTheDocument();
  });

  it("is asked for once a draft", async () => {
    const { get, at, rerender } = show(ok({ revision: 7, table }));
    await screen.findByRole("table");
    rerender(at(7));
    expect(get).toHaveBeenCalledTimes(1);
    rerender(at(8));
    await screen.findByRole("table");
    await vi.waitFor(() => expect(get).toHaveBeenCalledTimes(2));
  });

  it("shows nothing for a solid part, and tells when there is no answer", async () => {
    const { container } = show(ok({ revision: 7, table: null }));
    await vi.waitFor(() => expect(container).toBeEmptyDOMElement());
    show(
      Promise.resolve({
        response: new Response(null, { status: 503 }),
        error: { title: "Not now", errors: [] },
      }),
    );
    expect(await screen.findByText("The real contact is not answered just now.")).toBeInTheDocument();
  });
});
