import { QueryClient, QueryClientProvider, useQuery } from "@tanstack/react-query";
import { act, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { NoAnswer, type Part, type Plan, type PlanParts } from "../../api/client";
import { type Draft, type Kept, taken } from "./kept";
import * as queries from "./queries";
import { useLateParts } from "./useLateParts";

const STOP = "stop:force-s1";
const KEY = queries.planKey(1, "metric");

function plan(revision: number): Plan {
  // Only what the hook reads.
  const read = { run: { id: 1 }, units: "metric", revision, moment: String(revision), parts: [] };
  return read as unknown as Plan;
}

function answer(moment: number, path: string | null = null): PlanParts {
  const parts = [{ name: STOP, digest: `d${moment}`, stop: {} } as unknown as Part];
  return { revision: moment, moment: String(moment), path, parts };
}

function setUp(entry: Draft["entry"] | null = null) {
  const answers: ((a: PlanParts) => void)[] = [];
  const asked = vi
    .spyOn(queries, "planParts")
    .mockImplementation(() => new Promise((resolve) => answers.push(resolve)));
  const client = new QueryClient();
  client.setQueryData<Kept>(KEY, taken(undefined, plan(0)));
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
  const lay = vi.fn();
  const draft = entry && ({ plan: {}, parts: new Map(), entry } as unknown as Draft);
  const names = [STOP];
  const hook = renderHook(
    () => {
      const { data: kept } = useQuery<Kept>({ queryKey: KEY, enabled: false });
      useLateParts({ runId: 1, units: "metric", kept, draft, names, lay });
      return kept;
    },
    { wrapper },
  );
  const tick = (ms = 10) => act(() => vi.advanceTimersByTimeAsync(ms));
  const comes = async (revision: number) => {
    client.setQueryData<Kept>(KEY, (known) => taken(known, plan(revision)));
    await tick(); // it is told in a task of its own
  };
  return { ...hook, answers, asked, lay, tick, comes };
}

describe("useLateParts", () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    vi.useFakeTimers();
    return () => vi.useRealTimers();
  });

  it("asks once for what is in view, and lays it into the kept plan", async () => {
    const { result, asked, answers, tick } = setUp();
    await tick();
    await act(async () => answers[0]?.(answer(0)));
    await tick(5000);
    expect(result.current?.parts.get(STOP)?.digest).toBe("d0");
    expect(asked).toHaveBeenCalledTimes(1);
  });

  it("asks again when an edit comes in before the answer, and drops the answer of before", async () => {
    const { result, asked, answers, tick, comes } = setUp();
    await tick();
    await comes(1);
    await tick();
    expect(asked).toHaveBeenCalledTimes(2);
    await act(async () => answers[0]?.(answer(0)));
    expect(result.current?.parts.has(STOP)).toBe(false);
    await act(async () => answers[1]?.(answer(1)));
    expect(result.current?.parts.get(STOP)?.digest).toBe("d1");
  });

  it("waits for a plan that is newer than the one here, and asks under that", async () => {
    const { result, asked, answers, tick, comes } = setUp();
    await tick();
    await act(async () => answers[0]?.(answer(1))); // somebody else's edit, of which this screen does not know yet
    await tick(5000);
    expect(asked).toHaveBeenCalledTimes(1);
    expect(result.current?.parts.has(STOP)).toBe(false);
    await comes(1);
    await tick();
    await act(async () => answers[1]?.(answer(1)));
    expect(result.current?.parts.get(STOP)?.digest).toBe("d1");
  });

  it("asks again where the server did not answer", async () => {
    const { asked, tick } = setUp();
    asked.mockRejectedValueOnce(new NoAnswer("The server does not answer."));
    await tick();
    await tick(2000);
    await tick();
    expect(asked).toHaveBeenCalledTimes(2);
  });

  it("asks for a preview with its entry once typing rests, and hands the answer over with that entry", async () => {
    const { asked, answers, lay, tick } = setUp({ path: "setups.s1.force.pressure_bar", text: "27" });
    await tick(150);
    expect(asked).not.toHaveBeenCalled();
    await tick(60);
    expect(asked.mock.lastCall?.[4]).toEqual({ path: "setups.s1.force.pressure_bar", text: "27" });
    await act(async () => answers[0]?.(answer(0, "setups.s1.force.pressure_bar")));
    expect(lay).toHaveBeenCalledWith(answer(0, "setups.s1.force.pressure_bar"), "27");
  });
});
