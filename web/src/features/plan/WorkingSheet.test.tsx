import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeAll, describe, expect, it, vi } from "vitest";
import { answer, STEP } from "../../tests/plan";
import { WorkingSheet } from "./WorkingSheet";

describe("WorkingSheet", () => {
  beforeAll(() => {
    // jsdom has no layout to scroll.
    Element.prototype.scrollIntoView = vi.fn();
  });

  it("shows formula, figures put in, value, unit, source and whether that is typical", async () => {
    const onClose = vi.fn();
    render(
      <WorkingSheet
        answer={answer("cap", { label: "Never above" })}
        steps={[STEP]}
        units="metric"
        onClose={onClose}
      />,
    );
    const sheet = screen.getByRole("region", { name: "Working of Never above" });
    expect(sheet).toHaveTextContent("F_c = z · S · ω² = 3 · 0.1 · 100²");
    expect(sheet).toHaveTextContent("3 000 N");
    expect(sheet).toHaveTextContent("Centrifugal force · derived: method typical");
    expect(sheet).not.toHaveTextContent("worked in millimetres");
    expect(screen.getByLabelText("What the symbols stand for")).toHaveTextContent("znumber of jaws");
    await userEvent.setup().click(screen.getByRole("button", { name: "back to the facts" }));
    expect(onClose).toHaveBeenCalledOnce();
  });

  it("says in which units it was worked when the screen shows inches", () => {
    render(<WorkingSheet answer={answer("cap")} steps={undefined} units="inch" onClose={vi.fn()} />);
    expect(screen.getByText("worked in millimetres and newtons")).toBeInTheDocument();
  });
});
