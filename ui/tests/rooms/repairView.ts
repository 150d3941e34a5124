import { vi } from "vitest";
import type { RepairView } from "../../src/api/repair";

export const VIEW = {
  job: { id: "j-1" },
  steps: [
    { id: "1", at: "2026-11-25T10:00:00Z", who: "", words: "Run: fails at heat", has_passed: false },
    { id: "2", at: "2026-11-25T10:20:00Z", who: "", words: "Heater: another one fitted", has_passed: null },
    { id: "3", at: "2026-11-25T10:40:00Z", who: "", words: "Run: runs through", has_passed: true },
  ],
  cured: "It runs through. One change stands between. Conclusive.",
  parts: [
    { id: "heater", words: "Heater" },
    { id: "board", words: "Control board" },
  ],
  interventions: [
    { id: "reseated", words: "plug or tag reseated" },
    { id: "replaced", words: "another one fitted" },
  ],
  outcomes: [
    { id: "heat", words: "fails at heat" },
    { id: "through", words: "runs through" },
  ],
  leader: "heater",
  asks_saw_fail: false,
  plan: {
    part: "heater",
    title: "Heater",
    minutes: "33 min",
    repair: "replace the heater",
    fits: [{ id: "replaced", words: "another one fitted" }],
    steps: [],
    told: 0,
    tricks: [],
    cautions: [],
  },
  is_over: false,
} as unknown as RepairView;

export const STRIPPED = {
  ...VIEW,
  way_back: [],
  strip: {
    panels: [{ id: "back", words: "Back panel" }],
    earthed: [],
    plugs: [{ id: "heater_tags", words: "Both heater tags" }],
    connectors: [],
    loose: [],
    tricks: [
      {
        part: "heater",
        tools: ["socket"],
        tricks: ["The tip goes into its clip first."],
        cautions: ["Turn the drum."],
      },
    ],
    spent: "12 min",
    steps: [
      {
        id: "s-1",
        at: "",
        words: "back panel",
        fasteners: "6 × M4, blue lid",
        count: 6,
        plugs: [],
        state: "whole",
        missing: "",
        minutes: "5 min",
        photos: [],
      },
      {
        id: "s-2",
        at: "",
        words: "heater",
        fasteners: "1 × hex",
        count: 1,
        plugs: [{ id: "heater_tags", words: "Both heater tags" }],
        state: "partly",
        missing: "1 of 1 fasteners",
        minutes: "",
        photos: [],
      },
    ],
  },
} as unknown as RepairView;

export function answering(answer: object) {
  const sent: unknown[] = [];
  vi.spyOn(globalThis, "fetch").mockImplementation(async (input) => {
    if ((input as Request).method !== "GET") sent.push(await (input as Request).json());
    return new Response(JSON.stringify(answer), { headers: { "Content-Type": "application/json" } });
  });
  return sent;
}
