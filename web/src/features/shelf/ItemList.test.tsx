import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { MemoryRouter } from "react-router";
import { describe, expect, it } from "vitest";
import type { ShelfKind } from "../../api/client";
import { found, ItemList, SHOWN } from "./ItemList";

const item = (n: number, more: Partial<ShelfKind["items"][number]> = {}) => ({
  key: `drill-${n}`,
  name: `Drill ${n}`,
  line: "solid carbide",
  typical: 0,
  runs: 0,
  sides: 0,
  ...more,
});

function Shown({ items }: { items: ShelfKind["items"] }) {
  const [words, setWords] = useState("");
  const kind = { kind: "drill", title: "Drills", noun: "drill", items } as ShelfKind;
  return (
    <MemoryRouter>
      <ItemList kind={kind} words={words} onWords={setWords} mayEdit isAside={false} />
    </MemoryRouter>
  );
}

describe("the items of a kind", () => {
  it("shows as many of thousands as anybody reads, and finds the rest by a word", async () => {
    render(<Shown items={Array.from({ length: 3000 }, (_, n) => item(n))} />);
    const list = screen.getByRole("region", { name: "Drills" });
    expect(within(list).getAllByRole("listitem")).toHaveLength(SHOWN);
    expect(screen.getByRole("status")).toHaveTextContent("200 of 3000: type a word to find the rest.");
    const user = userEvent.setup();
    await user.type(screen.getByRole("searchbox", { name: "Find in drills" }), "2987");
    expect(
      within(list)
        .getAllByRole("listitem")
        .map((i) => i.textContent),
    ).toEqual(["Drill 2987 solid carbide"]);
    await user.type(screen.getByRole("searchbox"), "x");
    expect(list).toHaveTextContent("None has all of these words.");
  });

  it("wants every word, of the name or the line, in any case", () => {
    const items = [item(8), item(9, { line: "HSS" })];
    expect(found(items, " hss DRILL ")).toEqual([items[1]]);
    expect(found(items, "  ")).toBe(items);
  });

  it("counts plans and sides apart", () => {
    render(<Shown items={[item(1, { runs: 2, sides: 4 }), item(2, { runs: 1, sides: 1 })]} />);
    expect(screen.getByRole("link", { name: /Drill 1/ })).toHaveTextContent(
      "solid carbide · 2 plans, 4 sides",
    );
    expect(screen.getByRole("link", { name: /Drill 2/ })).toHaveTextContent(/· 1 plan$/);
  });
});
