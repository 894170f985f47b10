import optimizeLocales from "@react-aria/optimize-locales-plugin";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  // Served by Django below /static/; while testing there is no server.
  base: "/static/",
  plugins: [react(), { ...optimizeLocales.vite({ locales: ["en-US"] }), enforce: "pre" }],
  // Inlined fonts would break the page's font-src rule.
  build: { manifest: true, assetsInlineLimit: 0, sourcemap: false },
  test: {
    environment: "jsdom",
    setupFiles: ["src/test-setup.ts"],
    globals: false,
    testTimeout: 30_000,
    maxWorkers: 2,
    // One page for all files of a worker: making a new one for each took longer than most tests. What a test puts in
    // the place of something goes with it.
    isolate: false,
    restoreMocks: true,
    unstubGlobals: true,
  },
});
