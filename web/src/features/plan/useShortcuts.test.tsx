import { fireEvent, render, renderHook, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { useShortcuts } from "./useShortcuts";

function setUp() {
  const actions = {
    goTo: vi.fn(),
    units: vi.fn(),
    working: vi.fn(),
    undo: vi.fn(),
    redo: vi.fn(),
    print: vi.fn(),
    help: vi.fn(),
  };
  renderHook(() => useShortcuts(actions));
  render(<input aria-label="field" />);
  return { ...actions, field: screen.getByLabelText("field") };
}

const key = (target: Element, letter: string, more = {}) =>
  fireEvent.keyDown(target, { key: letter, code: `Key${letter.toUpperCase()}`, ...more });

describe("useShortcuts", () => {
  it("acts on single letters outside fields", () => {
    const { units, working, help } = setUp();
    key(document.body, "u");
    key(document.body, "w");
    fireEvent.keyDown(document.body, { key: "?", code: "Slash", shiftKey: true });
    expect([units, working, help].map((f) => f.mock.calls.length)).toEqual([1, 1, 1]);
  });

  it("undoes with z and redoes with Shift+z, whatever Caps Lock says", () => {
    const { undo, redo, field } = setUp();
    key(document.body, "z");
    fireEvent.keyDown(document.body, { key: "Z", code: "KeyZ" }); // Caps Lock
    fireEvent.keyDown(document.body, { key: "Z", code: "KeyZ", shiftKey: true });
    // Alt makes another sign of it on some keyboards.
    fireEvent.keyDown(field, { key: "Ω", code: "KeyZ", altKey: true });
    expect([undo, redo].map((f) => f.mock.calls.length)).toEqual([3, 1]);
  });

  it("never acts on a single letter inside a field; there the same works with Alt", () => {
    const { field, units, working } = setUp();
    expect(key(field, "u")).toBe(true);
    expect(units).not.toHaveBeenCalled();
    expect(key(field, "u", { altKey: true })).toBe(false); // handled: the browser does nothing more
    key(field, "w", { altKey: true });
    expect(units).toHaveBeenCalledOnce();
    expect(working).toHaveBeenCalledOnce();
  });

  it("goes to a stop with Alt and a digit, from anywhere", () => {
    const { field, goTo } = setUp();
    fireEvent.keyDown(field, { key: "4", code: "Digit4", altKey: true });
    fireEvent.keyDown(document.body, { key: "4", code: "Digit4" });
    expect(goTo).toHaveBeenCalledExactlyOnceWith(3);
  });

  it("leaves the browser's own keys alone", () => {
    const { units } = setUp();
    key(document.body, "u", { ctrlKey: true });
    expect(units).not.toHaveBeenCalled();
  });
});
