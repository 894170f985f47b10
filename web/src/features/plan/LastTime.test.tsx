import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { client } from "../../api/client";
import { LastTime } from "./LastTime";

function open(answer: object, onTake: Parameters<typeof LastTime>[0]["onTake"] = null) {
  vi.spyOn(client, "GET").mockResolvedValue({
    data: answer,
    response: new Response(null, { status: 200 }),
  } as never);
  return render(
    <QueryClientProvider client={new QueryClient()}>
      <LastTime runId={1} units="metric" revision={1} onTake={onTake} />
    </QueryClientProvider>,
  );
}

describe("LastTime", () => {
  it("says what was learnt, of which part, and how it ran", async () => {
    open({
      lessons: [
        {
          part: "Wear ring (LH-2107)",
          material: "aluminium bronze",
          machine: "Lathe 5",
          text: "Measure one in ten.",
          by: "setter",
          at: "2027-03-01T06:00:00Z",
        },
      ],
      taught: [],
      ran: [
        {
          words: "Side 1, release 1, 46 pieces",
          rows: [{ what: "Scrap", planned: "2", real: "1" }],
        },
      ],
    });
    expect(await screen.findByText(/Measure one in ten/)).toHaveTextContent(
      "Wear ring (LH-2107), aluminium bronze, Lathe 5 · setter",
    );
    expect(screen.getByText("How it ran: Side 1, release 1, 46 pieces")).toBeInTheDocument();
    expect(screen.getByRole("row", { name: "Scrap 2 1", hidden: true })).toBeInTheDocument();
  });

  it("offers what was seen to who may change the plan, and to nobody else", async () => {
    const taught = [{ path: "route.seen_s", value: 92.5, words: "A piece came every 92.5 s." }];
    const onTake = vi.fn();
    const { unmount } = open({ lessons: [], ran: [], taught }, onTake);
    await userEvent.click(await screen.findByRole("button", { name: "Count it in the plan" }));
    expect(onTake).toHaveBeenCalledWith("route.seen_s", 92.5);
    unmount();
    open({ lessons: [], ran: [], taught });
    expect(await screen.findByText(/A piece came/)).toBeInTheDocument();
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("is not there where nothing was learnt", async () => {
    const { container } = open({ lessons: [], ran: [], taught: [] });
    await new Promise((done) => setTimeout(done, 0));
    expect(container).toBeEmptyDOMElement();
  });
});
