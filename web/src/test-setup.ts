import "@testing-library/jest-dom/vitest";
import { cleanup, configure } from "@testing-library/react";
import { afterEach } from "vitest";

// The screens are tested beside the rest: what is waited for may come late.
configure({ asyncUtilTimeout: 5000 });

// jsdom lays nothing out, so nothing ever changes its size.
class NoWatcher implements ResizeObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}
globalThis.ResizeObserver = NoWatcher;

afterEach(() => {
  cleanup();
  localStorage.clear();
  document.title = "";
});
