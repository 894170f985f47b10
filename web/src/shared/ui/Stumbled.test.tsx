import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { expect, it, vi } from "vitest";
import { Stumbled } from "./Stumbled";

let broken = false;

function Screen() {
  if (broken) throw new Error("a figure that is not there");
  return <p>the screen</p>;
}

it("says that a screen stumbled, tells whoever listens for errors, and opens it again", async () => {
  vi.spyOn(console, "error").mockImplementation(() => undefined);
  const told = vi.fn();
  vi.stubGlobal("reportError", told); // what a browser has and the tests' own page lacks
  broken = true;
  render(
    <MemoryRouter>
      <Stumbled>
        <Screen />
      </Stumbled>
    </MemoryRouter>,
  );
  expect(screen.getByRole("alert")).toHaveTextContent("What was kept is kept");
  expect(told).toHaveBeenCalled();
  broken = false;
  await userEvent.click(screen.getByRole("button", { name: "Open it again" }));
  expect(screen.getByText("the screen")).toBeInTheDocument();
  vi.unstubAllGlobals();
});
