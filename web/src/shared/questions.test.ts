import { beforeEach, describe, expect, it, vi } from "vitest";
import { client, type Question, Refused } from "../api/client";
import { question } from "../tests/plan";
import { answerOf, Dropped, standingWords } from "./questions";

const ok = (data: unknown) => ({ response: new Response(null, { status: 200 }), data }) as never;

function stands(...all: (Question | "silent")[]) {
  const get = vi.spyOn(client, "GET");
  for (const one of all)
    if (one === "silent") get.mockRejectedValueOnce(new TypeError("no network"));
    else get.mockResolvedValueOnce(ok(one));
  return get;
}

describe("answerOf", () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    vi.spyOn(client, "DELETE").mockResolvedValue(ok(undefined));
  });

  it("gives the answer as it arrives, with how it stood until then", async () => {
    stands(question(null, { state: "working", done: 2, of: 9 }), "silent", question({ words: "found" }));
    const told: string[] = [];
    const found = await answerOf<{ words: string }>(async () => question(), {
      onStanding: (s) => told.push(standingWords(s)),
    });
    expect(found.answer.words).toBe("found");
    expect(told).toEqual(["next in turn", "3 of 9", "3 of 9"]);
  });

  it("gives at once what is known already", async () => {
    const get = stands();
    expect((await answerOf<number>(async () => question(7))).answer).toBe(7);
    expect(get).not.toHaveBeenCalled();
  });

  it("throws the problem of what has no answer, as a light question would", async () => {
    const problem = {
      type: "",
      title: "Look",
      status: 422,
      errors: [{ field: "setups.s1", message: "Why." }],
    };
    stands(question(null, { state: "failed", problem }));
    const error = await answerOf(async () => question()).catch((e: unknown) => e);
    expect(error).toBeInstanceOf(Refused);
    expect((error as Refused).problem?.errors?.[0]?.message).toBe("Why.");
  });

  it("says what happened to one that was given up, and tells one that was dropped apart", async () => {
    stands(question(null, { state: "failed", told: "It took longer than 60 seconds and was ended." }));
    await expect(answerOf(async () => question())).rejects.toThrow("longer than 60 seconds");
    stands(question(null, { state: "dropped", told: "Changed." }));
    await expect(answerOf(async () => question())).rejects.toBeInstanceOf(Dropped);
  });

  it("takes the question back when it is aborted", async () => {
    const controller = new AbortController();
    vi.spyOn(client, "GET").mockResolvedValue(ok(question(null, { state: "working" })));
    const waiting = answerOf(async () => question(), { signal: controller.signal });
    controller.abort();
    await expect(waiting).rejects.toMatchObject({ name: "AbortError" });
    expect(client.DELETE).toHaveBeenCalledWith("/api/questions/{key}", { params: { path: { key: "q1" } } });
  });
});

describe("standingWords", () => {
  const at = (more: Partial<Question>) => standingWords(question(null, more));
  it("says how many wait before it, or how far it has come", () => {
    expect(at({ before: 3 })).toBe("3 before it");
    expect(at({ state: "working", done: 9, of: 9 })).toBe("9 of 9");
    expect(at({ state: "working" })).toBe("");
    expect(at({ told: "The process that computed this ended. It is asked once more." })).toContain(
      "once more",
    );
  });
});
