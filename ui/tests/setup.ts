import "@testing-library/jest-dom/vitest";
import { cleanup, configure } from "@testing-library/react";
import { afterEach, vi } from "vitest";

// How fast something comes is the benchmarks' business: a busy machine is no failure.
configure({ asyncUtilTimeout: 10_000 });

// One window for all files of a worker: no clock that stands is left to the next one.
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

// What Mantine asks of a browser and jsdom lacks.
Object.defineProperty(window, "matchMedia", {
  configurable: true,
  value: (query: string) => ({
    matches: false,
    media: query,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
    addListener: () => undefined,
    removeListener: () => undefined,
  }),
});
globalThis.ResizeObserver = class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
Element.prototype.scrollIntoView = () => undefined;
Object.defineProperty(document, "fonts", {
  configurable: true,
  value: { addEventListener: () => undefined, removeEventListener: () => undefined },
});

afterEach(() => localStorage.clear());
