import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { client } from "../../api/client";
import { plan } from "../../tests/plan";
import { useLive } from "./useLive";

const ok = (data: unknown) => ({ response: new Response(null, { status: 200 }), data }) as never;

function setUp(
  pulse: () => Promise<unknown>,
  entries: { by: string; text: string; revision: number }[] = [],
) {
  vi.spyOn(client, "GET").mockImplementation(((path: string) =>
    path.endsWith("/pulse") ? pulse() : Promise.resolve(ok({ entries, more: false, total: 1 }))) as never);
  const queries = new QueryClient();
  const invalidated = vi.spyOn(queries, "invalidateQueries");
  const onAnswer = vi.fn();
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={queries}>{children}</QueryClientProvider>
  );
  const kept = plan({ revision: 3 });
  const hook = renderHook(() => useLive(1, "metric", kept, "ada", onAnswer), { wrapper });
  return { ...hook, queries, invalidated, onAnswer };
}

describe("useLive", () => {
  beforeEach(() => {
    vi.restoreAllMocks();
  });

  it("asks for the plan again when somebody else changed it, and says who did what", async () => {
    const news = [
      { by: "ben", text: "Gauge pressure 28 bar → 27 bar", revision: 4 },
      { by: "ada", text: "her own", revision: 2 },
    ];
    const { result, invalidated } = setUp(async () => ok({ revision: 4, shelf: "a" }), news);
    await waitFor(() => expect(result.current.news).toBe("ben: Gauge pressure 28 bar → 27 bar"));
    expect(invalidated).toHaveBeenCalledWith({ queryKey: ["plan", 1, "metric"] });
  });

  it("leaves a plan alone that is still true, and lets what waits go out at each answer", async () => {
    const { result, invalidated, onAnswer } = setUp(async () => ok({ revision: 3, shelf: "a" }));
    await waitFor(() => expect(onAnswer).toHaveBeenCalled());
    expect(invalidated).not.toHaveBeenCalled();
    expect(result.current).toEqual({ isSilent: false, news: "" });
  });

  it("asks again when the shelf has changed", async () => {
    let shelf = "a";
    const { result, queries } = setUp(async () => ok({ revision: 3, shelf }));
    await waitFor(() => expect(queries.getQueryData(["pulse", 1])).toBeDefined());
    shelf = "b";
    await queries.refetchQueries({ queryKey: ["pulse", 1] });
    await waitFor(() => expect(result.current.news).toBe("The shelf has changed."));
  });

  it("says so while the server is silent", async () => {
    const { result } = setUp(async () => {
      throw new TypeError("Failed to fetch");
    });
    await waitFor(() => expect(result.current.isSilent).toBe(true));
  });
});
