import { readFileSync } from "node:fs";
import { defineConfig } from "vite";

type Built = { file: string; css?: string[]; assets?: string[] };

/** What the page consists of, as the build before this one wrote it. */
function files(): string[] {
  const manifest = JSON.parse(readFileSync("dist/.vite/manifest.json", "utf-8")) as Record<string, Built>;
  const all = Object.values(manifest).flatMap((b) => [b.file, ...(b.css ?? []), ...(b.assets ?? [])]);
  return [...new Set(all), "mark.svg"].sort().map((file) => `/static/${file}`);
}

/** The service worker, one file of its own beside the built page. */
export default defineConfig(({ command }) => ({
  define: {
    FILES: command === "build" ? JSON.stringify(files()) : "[]",
    "process.env.NODE_ENV": '"production"',
  },
  build: {
    emptyOutDir: false,
    copyPublicDir: false,
    lib: { entry: "src/keeper/keeper.ts", formats: ["iife"], name: "keeper", fileName: () => "keeper.js" },
  },
}));
