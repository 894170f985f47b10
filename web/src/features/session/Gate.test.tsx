import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { client } from "../../api/client";
import { Gate } from "./Gate";

const who = { name: "setter", role: "planner", demo: false };

function answers(status: number, body: unknown) {
  return {
    response: new Response(null, { status }),
    ...(status < 400 ? { data: body } : { error: body }),
  } as never;
}

function show() {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={queries}>
      <Gate>{(session) => <p>Welcome {session.name}</p>}</Gate>
    </QueryClientProvider>,
  );
  return userEvent.setup();
}

describe("Gate", () => {
  beforeEach(() => {
    vi.restoreAllMocks();
  });

  it("lets through who is signed in", async () => {
    vi.spyOn(client, "GET").mockResolvedValue(answers(200, who));
    show();
    expect(await screen.findByText("Welcome setter")).toBeInTheDocument();
  });

  it("asks for name and password, tells what was wrong, and then lets through", async () => {
    vi.spyOn(client, "GET").mockResolvedValue(answers(401, { title: "Sign in first" }));
    const post = vi.spyOn(client, "POST").mockResolvedValueOnce(answers(401, { title: "They do not fit." }));
    const user = show();
    await user.type(await screen.findByLabelText("Name"), "setter");
    await user.type(screen.getByLabelText("Password"), "wrong");
    await user.click(screen.getByRole("button", { name: "Sign in" }));
    expect(await screen.findByText("They do not fit.")).toBeInTheDocument();
    post.mockResolvedValueOnce(answers(200, who));
    await user.click(screen.getByRole("button", { name: "Sign in" }));
    expect(await screen.findByText("Welcome setter")).toBeInTheDocument();
    expect(post.mock.lastCall?.[1]).toEqual({ body: { username: "setter", password: "wrong" } });
  });

  it("says so when the server does not answer, and tries again", async () => {
    const get = vi.spyOn(client, "GET").mockRejectedValueOnce(new TypeError("Failed to fetch"));
    const user = show();
    expect(await screen.findByText(/does not answer/)).toBeInTheDocument();
    get.mockResolvedValueOnce(answers(200, who));
    await user.click(screen.getByRole("button", { name: "Try again" }));
    expect(await screen.findByText("Welcome setter")).toBeInTheDocument();
  });
});
