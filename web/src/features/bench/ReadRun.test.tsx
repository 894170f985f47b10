import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { Refused } from "../../api/client";
import * as queries from "./queries";
import { ReadRun } from "./ReadRun";

type Answer = { id: number; told: string[] };
type Then = { onSuccess: (made: Answer) => void };

function show(ask: object, answer: Answer = { id: 7, told: [] }) {
  const mutate = vi.fn((_text: string, then: Then) => then.onSuccess(answer));
  vi.spyOn(queries, "useReadRun").mockReturnValue({
    mutate,
    data: undefined,
    error: null,
    isPending: false,
    ...ask,
  } as never);
  const { container } = render(
    <MemoryRouter initialEntries={["/new"]}>
      <Routes>
        <Route path="/new" element={<ReadRun />} />
        <Route path="/runs/7" element={<p>the run</p>} />
      </Routes>
    </MemoryRouter>,
  );
  const input = container.querySelector("input[type=file]") as HTMLInputElement;
  return { mutate, input, user: userEvent.setup() };
}

const TEXT = '{"format": "noble-anvil-run"}';
// jsdom's files have no text()
const FILE = Object.assign(new File([TEXT], "LH-2041.json", { type: "application/json" }), {
  text: async () => TEXT,
});

describe("ReadRun", () => {
  beforeEach(() => vi.restoreAllMocks());

  it("reads a file and opens its run where there is nothing to tell", async () => {
    const { mutate, input, user } = show({});
    await user.upload(input, FILE);
    expect(await screen.findByText("the run")).toBeInTheDocument();
    expect(mutate.mock.calls[0]?.[0]).toBe(TEXT);
  });

  it("tells what came with it before the run is opened", async () => {
    const told = ["Chuck “A” was put on the shelf from the file, its figures typical."];
    const { input, user } = show({ data: { id: 7, told } }, { id: 7, told });
    await user.upload(input, FILE);
    expect(screen.getByRole("status")).toHaveTextContent("Look at what came with it");
    expect(screen.getByText(/its figures typical/)).toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: "Open the run" }));
    expect(screen.getByText("the run")).toBeInTheDocument();
  });

  it("says at each field what is not right, and that nothing was taken", () => {
    const errors = [{ field: "document.part.quantity", message: "Quantity must be at least 1." }];
    show({ error: new Refused(422, { type: "", title: "", status: 422, errors }) });
    expect(screen.getByRole("alert")).toHaveTextContent("Nothing was taken");
    expect(screen.getByText(/document.part.quantity: Quantity must be/)).toBeInTheDocument();
  });
});
