import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { describe, expect, it, vi } from "vitest";
import { plan, side, sideOf, stop } from "../../tests/plan";
import { Rail } from "./Rail";

function show(given = plan(), changes = new Map<string, string>()) {
  render(
    <MemoryRouter initialEntries={["/runs/1/hold-s1"]}>
      <Routes>
        <Route
          path="/runs/:runId/:stop"
          element={<Rail plan={given} side={0} at="hold-s1" changes={changes} />}
        />
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
      "/runs/1/hold-s1",
      "/runs/1/force-s1",
    ]);
    expect(screen.getByRole("link", { current: "page" })).toHaveTextContent("hold line");
  });

  it("calls a side by its own name, and one without a name by its number and its end", () => {
    const stops = [stop("part"), side("hold", 0), side("hold", 1)];
    show(plan({ stops, sides: [sideOf(0, { title: "Thread end out" }), sideOf(1, { end: "spigot end" })] }));
    expect(screen.getByText("Thread end out")).toBeInTheDocument();
    expect(screen.getByRole("link", { name: /Side 2, spigot end/ })).toBeInTheDocument();
    expect(screen.getByRole("heading", { name: "To the machine, Thread end out" })).toBeInTheDocument();
  });

  it("is one line on a phone, which opens the rest and is closed again at another stop", async () => {
    show();
    const line = within(screen.getByRole("navigation"))
      .getByText("all stops")
      .closest("button") as HTMLElement;
    expect(line).toHaveTextContent("Hold");
    expect(line).toHaveAttribute("aria-expanded", "false");
    await userEvent.setup().click(line);
    expect(line).toHaveTextContent("close");
    expect(line).toHaveAttribute("aria-expanded", "true");
    expect(screen.getByRole("navigation")).toHaveAttribute("data-open");
  });

  it("tells by word, not by colour alone, what is stopped or open", () => {
    const stops = [stop("part"), stop("hold", { state: "open" }), stop("force", { state: "stopped" })];
    show(plan({ stops }));
    expect(screen.getByRole("link", { name: /Force stopped/ })).toBeInTheDocument();
    expect(screen.getByRole("link", { name: /Hold open/ })).toBeInTheDocument();
    expect(screen.getByRole("link", { name: /Part/ })).not.toHaveTextContent("settled");
  });

  it("folds the side that is not in view to one line with the marks of its stops", () => {
    const stops = [
      stop("part"),
      side("hold", 0),
      side("force", 0),
      side("hold", 1),
      side("force", 1, { state: "open" }),
    ];
    show(plan({ stops, sides: [sideOf(0), sideOf(1, { end: "spigot end", verdict: "open" })] }));
    const folded = screen.getByRole("link", { name: /Side 2, spigot end/ });
    expect(folded).toHaveAttribute("href", "/runs/1/hold-s2");
    expect(folded).toHaveTextContent("open");
    expect(screen.getAllByRole("link")).toHaveLength(4); // part, two stops of side 1, side 2 in one
  });

  it("keeps in sight what is carried to the machine, and says what is not known", () => {
    show(plan(), new Map([["carry:s1:bore", "80.00 mm"]]));
    const carry = within(screen.getByRole("region", { name: "To carry to the machine" }));
    expect(carry.getByText("28.0 bar")).toBeInTheDocument();
    expect(carry.getByText("84.00 mm")).toHaveAttribute("data-moved", "true");
    expect(carry.getByText("600 rpm")).not.toHaveAttribute("data-moved");
    expect(carry.getByText("not known")).toBeInTheDocument();
  });

  it("says how much of each side was proposed, and who may say so has it look right", async () => {
    const right = vi.fn();
    const given = plan({
      sides: [sideOf(0, { proposed: 12 }), sideOf(1, { proposed: 1, end: "spigot end" })],
    });
    given.stops = [side("hold", 0), side("hold", 1)];
    const { rerender } = render(
      <MemoryRouter>
        <Rail plan={given} side={0} at="hold-s1" changes={new Map()} onLooksRight={right} />
      </MemoryRouter>,
    );
    expect(screen.getByText("12 values proposed")).toBeInTheDocument();
    expect(screen.getByText("1 value proposed")).toBeInTheDocument();
    await userEvent.setup().click(screen.getByRole("button", { name: "Side 2 looks right" }));
    expect(right).toHaveBeenCalledExactlyOnceWith("s2");
    rerender(
      <MemoryRouter>
        <Rail plan={given} side={0} at="hold-s1" changes={new Map()} />
      </MemoryRouter>,
    );
    expect(screen.queryByRole("button")).toBeNull(); // an operator looks
  });
});
