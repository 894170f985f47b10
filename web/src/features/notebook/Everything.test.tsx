import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { describe, expect, it, vi } from "vitest";
import { client } from "../../api/client";
import { Everything } from "./Everything";

const LINE = {
  kind: "lesson",
  of: "Seal carrier (LH-2041)",
  words: "Blow the chips out.",
  on: "2027-03-01",
  by: "setter",
  href: "/runs/1/running?lot=s1",
};

function open(answer: object) {
  const get = vi
    .spyOn(client, "GET")
    .mockResolvedValue({ data: answer, response: new Response(null, { status: 200 }) } as never);
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <Everything find="chips" units="metric" />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return get;
}

describe("Everything", () => {
  it("leads to where something was noted, and says what is due again", async () => {
    open({
      lines: [LINE],
      count: 120,
      due: ["Lathe 3: its coolant was measured 9 days ago. Measure it again."],
    });
    expect(await screen.findByRole("link", { name: LINE.of })).toHaveAttribute("href", LINE.href);
    expect(screen.getByText(/120 lines, the newest 1 shown/)).toBeInTheDocument();
    expect(screen.getByText(/Measure it again/)).toBeInTheDocument();
  });

  it("asks for one kind", async () => {
    const get = open({ lines: [], count: 0, due: [] });
    await userEvent.setup().click(await screen.findByRole("radio", { name: "edge" }));
    expect(await screen.findByText(/Take a word out/)).toBeInTheDocument();
    expect(get).toHaveBeenLastCalledWith("/api/notebook/everything", {
      params: { query: { find: "chips", kind: "edge", units: "metric" } },
    });
  });
});
