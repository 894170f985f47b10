import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { NoAnswer, type Plan, type Preview, Refused, type Units } from "../../api/client";
import { unsentEdits } from "../../shared/unsentEdits";
import * as acting from "./acting";
import { type Kept, taken } from "./kept";
import * as queries from "./queries";
import { useEditing } from "./useEditing";

const PATH = "setups.s1.force.pressure_bar";
const OTHER = "part.edge_mm";

function plan(revision: number): Plan {
  // Only what the hook reads.
  const read = { run: { id: 1 }, units: "metric", revision, moment: String(revision), parts: [] };
  return read as unknown as Plan;
}

function preview(revision: number, verdict = ""): Preview {
  return { ...plan(revision), verdict, path: PATH } as unknown as Preview;
}

const kept = (revision: number): Kept => taken(undefined, plan(revision));
const LOOK = { stop: "force-s1", picture: "", setup: "" };

function setUp() {
  const client = new QueryClient();
  client.setQueryData(queries.planKey(1, "metric"), kept(0));
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
  const initialProps = { units: "metric" as Units, kept: kept(0) };
  const hook = renderHook(({ units, kept }) => useEditing(1, units, kept, "ada", LOOK), {
    wrapper,
    initialProps,
  });
  return { client, initialProps, ...hook };
}

const refusal = (message: string) =>
  new Refused(422, { type: "", title: "", status: 422, errors: [{ field: PATH, message }] });
const conflict = () =>
  new Refused(409, { type: "", title: "Changed.", status: 409, theirs: "26", yours: "27", errors: [] });

describe("useEditing", () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    localStorage.clear();
  });

  it("never lets an older answer replace a newer one", async () => {
    const answers: ((p: Preview) => void)[] = [];
    vi.spyOn(queries, "previewEdit").mockImplementation(
      () => new Promise((resolve) => answers.push(resolve)),
    );
    const { result } = setUp();
    act(() => result.current.type(PATH, "2"));
    act(() => result.current.type(PATH, "27"));
    await act(async () => answers[1]?.(preview(0, "new")));
    await act(async () => answers[0]?.(preview(0, "old")));
    expect(result.current.draft?.plan.verdict).toBe("new");
  });

  it("drops a preview that was made over another plan than the one here", async () => {
    vi.spyOn(queries, "previewEdit").mockResolvedValue(preview(1));
    const { result } = setUp();
    await act(async () => result.current.type(PATH, "27"));
    expect(result.current.draft).toBeNull();
  });

  it("asks the preview again when somebody else's edit comes in", async () => {
    const asked = vi.spyOn(queries, "previewEdit").mockResolvedValue(preview(0));
    const { result, rerender, initialProps } = setUp();
    await act(async () => result.current.type(PATH, "27"));
    await act(async () => rerender({ ...initialProps, kept: kept(1) }));
    expect(asked).toHaveBeenCalledTimes(2);
    expect(asked.mock.lastCall?.[2]).toEqual({ text: "27" });
  });

  it("rests on what was on the screen when typing began, whatever came in since", async () => {
    vi.spyOn(queries, "previewEdit").mockResolvedValue(preview(0));
    const keep = vi.spyOn(queries, "keepEdit").mockResolvedValue(plan(3));
    const { result, rerender, initialProps } = setUp();
    await act(async () => result.current.type(PATH, "2"));
    await act(async () => rerender({ ...initialProps, kept: kept(2) })); // somebody else was here
    await act(async () => result.current.type(PATH, "26"));
    await act(async () => result.current.keep(PATH, { text: "26" }));
    await act(async () => result.current.keep(OTHER, { text: "0.4" })); // not typed: it rests on what is there
    expect(keep.mock.calls.map((call) => call[4])).toEqual([0, 2]);
  });

  it("keeps what got no answer in this browser, and sends it again with the same key", async () => {
    const keep = vi.spyOn(queries, "keepEdit").mockRejectedValueOnce(new NoAnswer());
    const { result, client } = setUp();
    act(() => result.current.keep(PATH, { text: "27" }));
    await waitFor(() => expect(result.current.troubles[PATH]?.kind).toBe("unsent"));
    expect(result.current.troubles[PATH]?.message).toContain("waits here");
    expect(result.current.unsent).toBe(1);
    expect(unsentEdits.waiting("ada")).toHaveLength(1);
    keep.mockResolvedValueOnce(plan(1));
    act(() => result.current.sendWaiting());
    await waitFor(() => expect(result.current.troubles).toEqual({}));
    expect(keep.mock.calls[0]?.[5]).toBe(keep.mock.calls[1]?.[5]);
    expect(unsentEdits.waiting("ada")).toEqual([]);
    expect(client.getQueryData<Kept>(queries.planKey(1, "metric"))?.plan.revision).toBe(1);
  });

  it("sends what waited from before a reload, once, in its order", async () => {
    const edit = { runId: 1, units: "metric" as const, base: 0, person: "ada", screen: "before" };
    unsentEdits.put({ ...edit, key: "a", path: PATH, entry: { text: "27" } });
    unsentEdits.put({ ...edit, key: "b", path: OTHER, entry: { text: "0.4" } });
    unsentEdits.put({ ...edit, key: "c", path: PATH, entry: { text: "26" } });
    unsentEdits.put({ ...edit, key: "d", path: PATH, entry: { text: "1" }, person: "ben" });
    unsentEdits.put({ ...edit, key: "e", path: PATH, entry: { text: "2" }, runId: 2 });
    const keep = vi
      .spyOn(queries, "keepEdit")
      .mockImplementation(async (...given) => plan(given[5].charCodeAt(0) - 96));
    setUp();
    await waitFor(() => expect(unsentEdits.waiting("ada").map((e) => e.key)).toEqual(["e"]));
    expect(keep.mock.calls.map((call) => call[5])).toEqual(["a", "b", "c"]);
    // What was typed later for the same fact rests on the answer to what was typed before.
    expect(keep.mock.calls.map((call) => call[4])).toEqual([0, 0, 1]);
    expect(unsentEdits.waiting("ben")).toHaveLength(1);
  });

  it("does not send what waited from before items had ids, and tells its text", async () => {
    const keep = vi.spyOn(queries, "keepEdit");
    const edit = { runId: 1, units: "metric" as const, base: 0, person: "ada", screen: "before" };
    unsentEdits.put({ ...edit, key: "a", path: "setups.1.cuts.0.feed_mm_rev", entry: { text: "0.17" } });
    const { result } = setUp();
    await waitFor(() => expect(unsentEdits.waiting("ada")).toEqual([]));
    expect(keep).not.toHaveBeenCalled();
    expect(result.current.told).toContain("“0.17”");
  });

  it("takes what another tab typed for somebody else's, even when it is sent from here", async () => {
    vi.spyOn(queries, "previewEdit").mockResolvedValue(preview(0));
    const keep = vi.spyOn(queries, "keepEdit").mockResolvedValue(plan(1));
    const { result } = setUp();
    await act(async () => result.current.type(PATH, "26"));
    const edit = { runId: 1, units: "metric" as const, base: 0, person: "ada" };
    unsentEdits.put({ ...edit, key: "a", path: PATH, entry: { text: "27" }, screen: "another tab" });
    await act(async () => result.current.keep(PATH, { text: "26" }));
    await waitFor(() => expect(unsentEdits.waiting("ada")).toEqual([]));
    expect(keep.mock.calls.map((call) => call[4])).toEqual([0, 0]); // the server tells the conflict
  });

  it("does not undo before what was kept earlier has gone out", async () => {
    const order: string[] = [];
    let answer: (p: Plan) => void = () => {};
    vi.spyOn(queries, "keepEdit").mockImplementation(() => {
      order.push("keep");
      return new Promise((resolve) => {
        answer = resolve;
      });
    });
    vi.spyOn(acting, "act").mockImplementation(async () => {
      order.push("undo");
      return plan(2);
    });
    const { result } = setUp();
    act(() => result.current.keep(PATH, { text: "27" }));
    let went: Promise<unknown> | undefined;
    act(() => {
      went = result.current.act({ kind: "undo" });
    });
    await act(async () => answer(plan(1)));
    expect(await went).not.toBeNull();
    expect(order).toEqual(["keep", "undo"]);
  });

  it("tells why an undo did not go", async () => {
    const said = { type: "", title: "You have nothing to undo in this run.", status: 409, errors: [] };
    vi.spyOn(acting, "act")
      .mockRejectedValueOnce(new Refused(409, said))
      .mockRejectedValueOnce(new NoAnswer("Silent."));
    const { result } = setUp();
    await act(async () => expect(await result.current.act({ kind: "undo" })).toBeNull());
    expect(result.current.told).toBe("You have nothing to undo in this run.");
    await act(async () => expect(await result.current.act({ kind: "undo" })).toBeNull());
    expect(result.current.told).toBe("Not done: Silent.");
  });

  it("keeps an edit waiting while the server's disk is full, and says so", async () => {
    const full = { type: "", title: "The disk is full: nothing was kept.", status: 507, errors: [] };
    vi.spyOn(queries, "keepEdit").mockRejectedValueOnce(new Refused(507, full));
    const { result } = setUp();
    act(() => result.current.keep(PATH, { text: "27" }));
    await waitFor(() => expect(result.current.told).toBe("The disk is full: nothing was kept."));
    expect(unsentEdits.waiting("ada")).toHaveLength(1);
  });

  it("keeps one fact's refused text while another fact is edited", async () => {
    vi.spyOn(queries, "keepEdit").mockRejectedValueOnce(refusal("Lower it.")).mockResolvedValueOnce(plan(1));
    vi.spyOn(queries, "previewEdit").mockResolvedValue(preview(0));
    const { result } = setUp();
    act(() => result.current.keep(PATH, { text: "99" }));
    await waitFor(() => expect(result.current.troubles[PATH]?.message).toBe("Lower it."));
    expect(unsentEdits.waiting("ada")).toEqual([]); // what was refused is not sent again
    await act(async () => result.current.type(OTHER, "0.4"));
    await act(async () => result.current.keep(OTHER, { text: "0.4" }));
    expect(result.current.troubles[PATH]?.entry).toEqual({ text: "99" });
    act(() => result.current.cancel(PATH));
    expect(result.current.troubles).toEqual({});
  });

  it("drops a waiting edit that is put back", async () => {
    vi.spyOn(queries, "keepEdit").mockRejectedValue(new NoAnswer());
    const { result } = setUp();
    act(() => result.current.keep(PATH, { text: "27" }));
    await waitFor(() => expect(result.current.unsent).toBe(1));
    act(() => result.current.cancel(PATH));
    expect(result.current.unsent).toBe(0);
    expect(unsentEdits.waiting("ada")).toEqual([]);
  });

  it("never reads a bare number again in other units", async () => {
    const keep = vi.spyOn(queries, "keepEdit").mockRejectedValueOnce(new NoAnswer());
    const { result, rerender, initialProps } = setUp();
    act(() => result.current.keep(PATH, { text: "27" }));
    await waitFor(() => expect(result.current.troubles[PATH]?.kind).toBe("unsent"));
    rerender({ ...initialProps, units: "inch" });
    expect(result.current.troubles).toEqual({});
    expect(result.current.othersWaiting).toBe(true);
    keep.mockResolvedValueOnce(plan(1));
    await act(async () => result.current.sendWaiting());
    expect(keep.mock.calls.map((call) => call[3])).toEqual(["metric", "metric"]);
  });

  it("shows both values of a conflict, and takes mine from what is there now", async () => {
    const keep = vi.spyOn(queries, "keepEdit").mockRejectedValueOnce(conflict());
    const { result, client } = setUp();
    act(() => result.current.keep(PATH, { text: "27" }));
    await waitFor(() => expect(result.current.troubles[PATH]?.theirs).toBe("26"));
    client.setQueryData(queries.planKey(1, "metric"), kept(5));
    keep.mockResolvedValueOnce(plan(6));
    act(() => result.current.takeMine(PATH));
    await waitFor(() => expect(keep).toHaveBeenCalledTimes(2));
    expect(keep.mock.lastCall?.[4]).toBe(5);
    expect(keep.mock.calls[0]?.[5]).not.toBe(keep.mock.calls[1]?.[5]);
  });

  it("takes theirs", async () => {
    vi.spyOn(queries, "keepEdit").mockRejectedValueOnce(conflict());
    const { result } = setUp();
    act(() => result.current.keep(PATH, { text: "27" }));
    await waitFor(() => expect(result.current.troubles[PATH]?.theirs).toBe("26"));
    act(() => result.current.takeTheirs(PATH));
    expect(result.current.troubles).toEqual({});
  });
});
