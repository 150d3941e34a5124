import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  build: {
    outDir: "../src/ohmcensus/web/static",
    emptyOutDir: true,
    assetsInlineLimit: 0,
    target: "es2022",
  },
  server: { proxy: { "/api": "http://127.0.0.1:4740" } },
  test: {
    environment: "jsdom",
    // One window for all files of a worker: to make one for each took two thirds of the time.
    pool: "threads",
    isolate: false,
    // Waiting is for a busy machine; how fast it is, is told by the benchmarks.
    testTimeout: 20_000,
    // Style sheets are read as text by one test, and not applied.
    css: { include: [/\.css\?raw$/] },
    setupFiles: ["tests/setup.ts"],
    include: ["tests/**/*.test.tsx", "tests/**/*.test.ts"],
  },
});
