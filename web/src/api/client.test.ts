import { afterEach, describe, expect, it, vi } from "vitest";
import { answered, client, NoAnswer, Refused } from "./client";

function network(response: Response | Error | DOMException) {
  const calls: Request[] = [];
  vi.stubGlobal("fetch", (request: Request) => {
    calls.push(request);
    return response instanceof Response ? Promise.resolve(response) : Promise.reject(response);
  });
  return calls;
}

const json = (status: number, body: unknown) =>
  new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });

const signIn = () => answered(client.POST("/api/session", { body: { username: "a", password: "b" } }));

describe("client", () => {
  afterEach(() => {
    vi.unstubAllGlobals();
  });

  it("gives the data of an answer", async () => {
    network(json(200, { name: "planner", role: "planner", demo: true }));
    expect((await answered(client.GET("/api/session"))).name).toBe("planner");
  });

  it("sends the CSRF token with changes and not with reads", async () => {
    document.head.innerHTML = '<meta name="token-cookie" content="anvil-token-1a2b">';
    // biome-ignore lint/suspicious/noDocumentCookie: the token comes as a cookie
    document.cookie = "anvil-token-1a2b=abc123";
    const calls = network(json(200, {}));
    await answered(client.GET("/api/session"));
    network(json(200, {}));
    const sent = network(json(200, {}));
    await signIn();
    expect(calls[0]?.headers.get("X-CSRFToken")).toBeNull();
    expect(sent[0]?.headers.get("X-CSRFToken")).toBe("abc123");
  });

  it("tells a refusal with its problem", async () => {
    network(
      json(422, {
        type: "about:blank",
        status: 422,
        title: "Look again",
        errors: [{ field: "x", message: "m" }],
      }),
    );
    const refused = await signIn().catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(Refused);
    expect(refused).toMatchObject({ status: 422, message: "Look again" });
    expect((refused as Refused).problem?.errors?.[0]?.field).toBe("x");
  });

  it("tells when there was no answer, also from a proxy", async () => {
    network(new TypeError("Failed to fetch"));
    await expect(signIn()).rejects.toBeInstanceOf(NoAnswer);
    network(json(502, {}));
    await expect(signIn()).rejects.toBeInstanceOf(NoAnswer);
  });

  it("passes on that a question was withdrawn", async () => {
    network(new DOMException("withdrawn", "AbortError"));
    await expect(signIn()).rejects.toMatchObject({ name: "AbortError" });
  });
});
