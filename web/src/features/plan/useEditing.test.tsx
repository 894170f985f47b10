import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { NoAnswer, type Plan, Refused } from "../../api/client";
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
  return { client, ...renderHook(() => useEditing(1, "metric", plan(0)), { wrapper }) };
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
    await waitFor(() => expect(result.current.trouble?.kind).toBe("unsent"));
    expect(result.current.trouble?.message).toContain("Not kept");
    expect(result.current.trouble?.entry).toEqual({ text: "27" });
    keep.mockResolvedValueOnce(plan(1));
    act(() => result.current.tryAgain());
    await waitFor(() => expect(result.current.trouble).toBeNull());
    expect(keep.mock.calls[0]?.[5]).toBe(keep.mock.calls[1]?.[5]);
    expect(client.getQueryData<Plan>(queries.planKey(1, "metric"))?.revision).toBe(1);
  });

  it("tells what to do at the field, and both values of a conflict", async () => {
    const said = { type: "", title: "", status: 422, errors: [{ field: PATH, message: "Lower it." }] };
    const keep = vi.spyOn(queries, "keepEdit").mockRejectedValueOnce(new Refused(422, said));
    const { result } = setUp();
    act(() => result.current.keep(PATH, { text: "99" }));
    await waitFor(() => expect(result.current.trouble?.message).toBe("Lower it."));
    keep.mockRejectedValueOnce(
      new Refused(409, { type: "", title: "Changed.", status: 409, theirs: "26", yours: "27", errors: [] }),
    );
    act(() => result.current.keep(PATH, { text: "27" }));
    await waitFor(() => expect(result.current.trouble?.theirs).toBe("26"));
    act(() => result.current.takeTheirs());
    expect(result.current.trouble).toBeNull();
  });
});
