import { beforeEach, describe, expect, it, vi } from "vitest";
import { client, NoAnswer, Refused } from "../api/client";
import { sendWork, type UnsentWork, unsentWork } from "./unsentWork";

const work = (key: string, person = "setter"): UnsentWork => ({
  key,
  person,
  runId: 1,
  run: "Seal carrier",
  release: 1,
  step: `s1.${key}`,
  units: "metric",
  at: "2027-03-01T06:00:00Z",
  doing: { state: "done", reason: "" },
});

const refusing = (status: number, problem: object = {}) => ({
  error: { type: "about:blank", status, title: "No.", errors: [], ...problem },
  response: new Response(null, { status }),
});

function answering(...answers: object[]) {
  const post = vi.spyOn(client, "POST");
  for (const one of answers) post.mockResolvedValueOnce(one as never);
  return post;
}

const good = { data: { marks: [] }, response: new Response(null, { status: 200 }) };
const left = () => unsentWork.all().map((w) => w.key);

describe("sendWork", () => {
  beforeEach(() => localStorage.clear());

  it("sends a person's own, the oldest first, and leaves those of others", async () => {
    for (const one of [work("a"), work("b", "operator"), work("c")]) unsentWork.put(one);
    const post = answering(good, good);
    expect((await sendWork("setter")).map((s) => s.work.key)).toEqual(["a", "c"]);
    expect(post).toHaveBeenCalledTimes(2);
    expect(left()).toEqual(["b"]);
  });

  it("stops where the server does not answer, and where it asks to sign in", async () => {
    for (const one of [work("a"), work("b")]) unsentWork.put(one);
    answering(refusing(503));
    await expect(sendWork("setter")).rejects.toBeInstanceOf(NoAnswer);
    answering(refusing(401));
    await expect(sendWork("setter")).rejects.toBeInstanceOf(Refused);
    answering(refusing(500));
    await expect(sendWork("setter")).rejects.toBeInstanceOf(Refused);
    expect(left()).toEqual(["a", "b"]);
    expect(unsentWork.all()[0]?.refused).toBeUndefined();
  });

  it("keeps what is refused with its reason, asks where it is far off, and goes on with the rest", async () => {
    for (const one of [work("a"), work("b"), work("c")]) unsentWork.put(one);
    answering(
      refusing(422, { errors: [{ field: "reason", message: "Say why." }] }),
      refusing(409, { title: "Is that right?", asks: "sure" }),
      good,
    );
    await sendWork("setter");
    expect(unsentWork.all().map((w) => [w.key, w.refused, w.asked])).toEqual([
      ["a", "Say why.", undefined],
      ["b", undefined, "Is that right?"],
    ]);
    const post = answering();
    const before = post.mock.calls.length;
    await sendWork("setter"); // neither is sent again by itself
    expect(post.mock.calls.length).toBe(before);
  });
});
