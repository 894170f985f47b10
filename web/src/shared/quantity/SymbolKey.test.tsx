import { render, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { keyOf, SymbolKey } from "./SymbolKey";

describe("the key of a working's symbols", () => {
  it("tells each symbol once, and where a later line means another thing by it", () => {
    const steps: { label: string; symbols: Record<string, string> }[] = [
      { label: "Wall", symbols: { t: "thickness of the wall", d: "diameter" } },
      { label: "Minutes", symbols: { t: "minutes of one pass", d: "diameter" } },
      { label: "All", symbols: { t: "minutes of one pass", x: "" } },
    ];
    expect(keyOf(steps)).toEqual([
      { symbol: "t", meaning: "thickness of the wall" },
      { symbol: "t", meaning: "minutes of one pass, in “Minutes”" },
      { symbol: "d", meaning: "diameter" },
    ]);
  });

  it("is not there where nothing is explained, as in a release of an earlier form", () => {
    const { container } = render(<SymbolKey steps={[{ label: "Wall", symbols: {} }]} />);
    expect(container).toBeEmptyDOMElement();
  });

  it("names what it is", () => {
    render(<SymbolKey steps={[{ label: "Wall", symbols: { F_0: "grip at rest" } }]} />);
    expect(screen.getByLabelText("What the symbols stand for")).toHaveTextContent("F_0grip at rest");
  });
});
