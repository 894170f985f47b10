import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, useLocation } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { client, type Hit } from "../../api/client";
import { type LocalHit, LocalHits, useOfferHits } from "../../shared/find/LocalHits";
import { FindBox, matching } from "./FindBox";

const hits: LocalHit[] = [
  { key: "1", title: "Gauge pressure", detail: "28.0 bar · Force", to: "/runs/1/force#pressure" },
  { key: "2", title: "Force", detail: "stop · 28.0 bar", to: "/runs/1/force" },
  { key: "3", title: "Bore", detail: "52.00 mm · Part", to: "/runs/1/part#bore" },
];

describe("matching", () => {
  it("wants every word, and puts what begins with the first foremost", () => {
    expect(matching(hits, "force").map((h) => h.key)).toEqual(["2", "1"]);
    expect(matching(hits, "BAR gauge").map((h) => h.key)).toEqual(["1"]);
    expect(matching(hits, "bar bore")).toEqual([]);
    expect(matching(hits, "  ")).toEqual([]);
  });
});

const offered = { hits, plan: { run: 1, units: "metric" as const } };

function Here() {
  useOfferHits(offered);
  const { pathname, hash } = useLocation();
  return <p>{pathname + hash}</p>;
}

function show(found: Hit[] = []) {
  vi.spyOn(client, "GET").mockResolvedValue({ response: new Response(null), data: found } as never);
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <LocalHits>
          <FindBox />
          <Here />
          <input aria-label="field" />
        </LocalHits>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return userEvent.setup();
}

describe("FindBox", () => {
  beforeEach(() => {
    vi.restoreAllMocks();
  });

  it("opens with / and goes to a fact of the plan in view", async () => {
    const user = show();
    fireEvent.keyDown(document.body, { key: "/", code: "Slash" });
    await user.type(await screen.findByRole("searchbox"), "gauge");
    expect(await screen.findByRole("menuitem", { name: /Gauge pressure/ })).toBeInTheDocument();
    await user.keyboard("{Enter}");
    expect(screen.getByText("/runs/1/force#pressure")).toBeInTheDocument();
    expect(screen.queryByRole("dialog")).toBeNull();
  });

  it("finds runs and what is on the shelf", async () => {
    const user = show([
      { kind: "chuck", key: "lathe-3-chuck", title: "Lathe 3 chuck", detail: "on the shelf" },
    ]);
    await user.click(screen.getByRole("button", { name: "Find anything" }));
    await user.type(await screen.findByRole("searchbox"), "chuck");
    await user.click(await screen.findByRole("menuitem", { name: /Lathe 3 chuck/ }));
    expect(screen.getByText("/shelf/chuck/lathe-3-chuck")).toBeInTheDocument();
  });

  it("asks the server for facts of the plan in view, and goes to one", async () => {
    const user = show([
      { kind: "fact", key: "1/force-s1#brake", title: "Braking time", detail: "empty · Force" },
    ]);
    await user.click(screen.getByRole("button", { name: "Find anything" }));
    await user.type(await screen.findByRole("searchbox"), "brak");
    await user.click(await screen.findByRole("menuitem", { name: /Braking time/ }));
    expect(screen.getByText("/runs/1/force-s1#brake")).toBeInTheDocument();
    const asked = vi.mocked(client.GET).mock.lastCall?.[1] as unknown as { params: { query: object } };
    expect(asked.params.query).toEqual({ words: "brak", run: 1, units: "metric" });
  });

  it("says so where nothing is found, and leaves / in a field alone", async () => {
    const user = show();
    fireEvent.keyDown(screen.getByLabelText("field"), { key: "/", code: "Slash" });
    expect(screen.queryByRole("dialog")).toBeNull();
    fireEvent.keyDown(screen.getByLabelText("field"), { key: "/", code: "Slash", altKey: true });
    await user.type(await screen.findByRole("searchbox"), "zzz");
    expect(await screen.findByText("Nothing here has all of these words.")).toBeInTheDocument();
  });
});
