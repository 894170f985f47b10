import { afterEach, expect, it } from "vitest";
import { keyPressed } from "./keys";

afterEach(() => document.body.replaceChildren());

function heard(target: Element, key: string, more: KeyboardEventInit = {}) {
  let found: string | null = "nothing was heard";
  const hear = (event: KeyboardEvent) => {
    found = keyPressed(event);
  };
  window.addEventListener("keydown", hear, { once: true });
  target.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, ...more }));
  return found;
}

function placed(tag: string) {
  const made = document.createElement(tag);
  document.body.append(made);
  return made;
}

it("is a letter by itself outside a field, whatever caps lock says", () => {
  const row = placed("div");
  expect(heard(row, "u")).toBe("u");
  expect(heard(row, "U")).toBe("u");
  expect(heard(row, "Z", { shiftKey: true })).toBe("Z");
  expect(heard(row, "u", { ctrlKey: true })).toBeNull();
});

it("is text in a field, and its own key there with Alt", () => {
  const field = placed("input");
  field.focus();
  expect(heard(field, "u")).toBeNull();
  expect(heard(field, "u", { altKey: true, code: "KeyU" })).toBe("u");
  expect(heard(field, "/", { altKey: true, code: "Slash" })).toBe("/");
});

it("is text where a row of what was found is told of a key that goes to the field", () => {
  const field = placed("input");
  const row = placed("div");
  field.focus();
  expect(heard(row, "u")).toBeNull();
});
