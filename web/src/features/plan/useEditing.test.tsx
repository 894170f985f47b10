import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { NoAnswer, type Plan, Refused, type Units } from "../../api/client";
import * as queries from "./queries";
import { useEditing } from "./useEditing";

const PATH = "setups.0.force.pressure_bar";

function plan(revision: number, line = ""): Plan {
  // Only what the hook reads.
  return { run: { id: 1 }, units: "metric", revision, verdict: line } as unknown as Plan;
}

function setUp() {
  const client = new QueryClient();
  client.setQueryData(queries.planKey(1, "metric"), plan(0));
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
  const start = { units: "metric" as Units };
  const hook = renderHook(({ units }) => useEditing(1, units, plan(0)), { wrapper, initialProps: start });
  return { client, ...hook };
}

describe("useEditing", () => {
  beforeEach(() => {
    vi.restoreAllMocks();
  });

  it("never lets an older answer replace a newer one", async () => {
    const answers: ((p: Plan) => void)[] = [];
    vi.spyOn(queries, "previewEdit").mockImplementation(
      () => new Promise((resolve) => answers.push(resolve)),
    );
    const { result } = setUp();
    act(() => result.current.type(PATH, "2"));
    act(() => result.current.type(PATH, "27"));
    await act(async () => answers[1]?.(plan(0, "new")));
    await act(async () => answers[0]?.(plan(0, "old")));
    expect(result.current.draft?.verdict).toBe("new");
  });

  it("keeps the typed text and the same key when the server does not answer", async () => {
    const keep = vi.spyOn(queries, "keepEdit").mockRejectedValueOnce(new NoAnswer());
    const { result, client } = setUp();
    act(() => result.current.keep(PATH, { text: "27" }));
    await waitFor(() => expect(result.current.troubles[PATH]?.kind).toBe("unsent"));
    expect(result.current.troubles[PATH]?.message).toContain("Not kept");
    expect(result.current.troubles[PATH]?.entry).toEqual({ text: "27" });
    keep.mockResolvedValueOnce(plan(1));
    act(() => result.current.tryAgain(PATH));
    await waitFor(() => expect(result.current.troubles).toEqual({}));
    expect(keep.mock.calls[0]?.[5]).toBe(keep.mock.calls[1]?.[5]);
    expect(client.getQueryData<Plan>(queries.planKey(1, "metric"))?.revision).toBe(1);
  });

  it("keeps one fact's refused text while another fact is edited", async () => {
    const said = { type: "", title: "", status: 422, errors: [{ field: PATH, message: "Lower it." }] };
    vi.spyOn(queries, "keepEdit")
      .mockRejectedValueOnce(new Refused(422, said))
      .mockResolvedValueOnce(plan(1));
    vi.spyOn(queries, "previewEdit").mockResolvedValue(plan(0));
    const { result } = setUp();
    act(() => result.current.keep(PATH, { text: "99" }));
    await waitFor(() => expect(result.current.troubles[PATH]?.message).toBe("Lower it."));
    await act(async () => result.current.type("part.edge_mm", "0.4"));
    await act(async () => result.current.keep("part.edge_mm", { text: "0.4" }));
    expect(result.current.troubles[PATH]?.entry).toEqual({ text: "99" });
    act(() => result.current.cancel(PATH));
    expect(result.current.troubles).toEqual({});
  });

  it("never reads a bare number again in other units", async () => {
    const keep = vi.spyOn(queries, "keepEdit").mockRejectedValueOnce(new NoAnswer());
    const { result, rerender } = setUp();
    act(() => result.current.keep(PATH, { text: "27" }));
    await waitFor(() => expect(result.current.troubles[PATH]?.kind).toBe("unsent"));
    rerender({ units: "inch" });
    expect(result.current.troubles).toEqual({});
    expect(result.current.othersWaiting).toBe(true);
    act(() => result.current.tryAgain(PATH));
    expect(keep.mock.calls.filter((call) => call[3] === "inch")).toEqual([]);
    rerender({ units: "metric" });
    expect(result.current.troubles[PATH]?.entry).toEqual({ text: "27" });
    expect(result.current.othersWaiting).toBe(false);
  });

  it("tells what to do at the field, and both values of a conflict", async () => {
    const said = { type: "", title: "", status: 422, errors: [{ field: PATH, message: "Lower it." }] };
    const keep = vi.spyOn(queries, "keepEdit").mockRejectedValueOnce(new Refused(422, said));
    const { result } = setUp();
    act(() => result.current.keep(PATH, { text: "99" }));
    await waitFor(() => expect(result.current.troubles[PATH]?.message).toBe("Lower it."));
    keep.mockRejectedValueOnce(
      new Refused(409, { type: "", title: "Changed.", status: 409, theirs: "26", yours: "27", errors: [] }),
    );
    act(() => result.current.keep(PATH, { text: "27" }));
    await waitFor(() => expect(result.current.troubles[PATH]?.theirs).toBe("26"));
    act(() => result.current.takeTheirs(PATH));
    expect(result.current.troubles).toEqual({});
  });
});
