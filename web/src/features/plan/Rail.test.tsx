import { render, screen, within } from "@testing-library/react";
import { MemoryRouter, Route, Routes } from "react-router";
import { describe, expect, it } from "vitest";
import { plan, stop } from "../../tests/plan";
import { Rail } from "./Rail";

function show(given = plan(), changes = new Map<string, string>()) {
  render(
    <MemoryRouter initialEntries={["/runs/1/hold"]}>
      <Routes>
        <Route path="/runs/:runId/:stop" element={<Rail plan={given} changes={changes} />} />
      </Routes>
    </MemoryRouter>,
  );
}

describe("Rail", () => {
  it("is the summary of the plan: every stop with its line, the current one marked", () => {
    show();
    const links = screen.getAllByRole("link");
    expect(links.map((l) => l.getAttribute("href"))).toEqual([
      "/runs/1/part",
      "/runs/1/hold",
      "/runs/1/force",
    ]);
    expect(screen.getByRole("link", { current: "page" })).toHaveTextContent("hold line");
    expect(screen.getByText("Side 2, flange end")).toBeInTheDocument();
  });

  it("tells by word, not by colour alone, what is stopped or open", () => {
    const stops = [stop("part"), stop("hold", { state: "open" }), stop("force", { state: "stopped" })];
    show(plan({ stops }));
    expect(screen.getByRole("link", { name: /Force stopped/ })).toBeInTheDocument();
    expect(screen.getByRole("link", { name: /Hold open/ })).toBeInTheDocument();
    expect(screen.getByRole("link", { name: /Part/ })).not.toHaveTextContent("settled");
  });

  it("keeps in sight what is carried to the machine, and says what is not known", () => {
    show(plan(), new Map([["carry:bore", "80.00 mm"]]));
    const carry = within(screen.getByRole("region", { name: "To carry to the machine" }));
    expect(carry.getByText("28.0 bar")).toBeInTheDocument();
    expect(carry.getByText("84.00 mm")).toHaveAttribute("data-moved", "true");
    expect(carry.getByText("600 rpm")).not.toHaveAttribute("data-moved");
    expect(carry.getByText("not known")).toBeInTheDocument();
  });
});
