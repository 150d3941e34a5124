import type { SuspectsView } from "../api/suspects";

const titles: Partial<Record<SuspectsView["standing"], string>> = {
  named: "Named",
  two_named: "Two faults named",
  nothing_separates: "No test left tells them apart",
  service_data: "The maker's figures would tell",
  nothing_found: "Nothing found",
  settled: "Settled",
};

const goTo: Partial<Record<NonNullable<SuspectsView["act"]>["kind"], string>> = {
  repair: "Repair it",
  leak_test: "Make the leak test",
  way_back: "The way back",
  safe: "Go to Safe",
  prove: "Prove it safe",
  run: "Prove it safe",
  end: "To the end",
};

export const endings = {
  titles,
  and: " and ",
  why: "One change at a time, then a run: that proves it.",
  isolating: "A leak is being isolated",
  next: "Do next",
  go: "Go there",
  goTo,
  minutes: (minutes: number) => `${Number(minutes.toFixed(1))} min`,
};

export const suspects = {
  ask: "Do next",
  take: "Choose this line",
  also: "While you are there:",
  stamped: (unit: string) => `Stamped, in ${unit}`,
  save: "Save",
  sheetSays: (stated: string) => `sheet: ${stated}`,
  notANumber: "Type a number above 0, as it is printed.",
  minutes: (minutes: number) => `${Number(minutes.toFixed(1))} min`,
  before: "First",
  expects: "It would read, if the fault is in",
  whatIf: "What each answer would mean",
  leave: "Skip",
  whys: [
    { id: "cannot_reach", words: "cannot reach" },
    { id: "no_meter", words: "no such meter" },
    { id: "trips", words: "it trips" },
  ] as const,
  title: "Suspects",
  nothing: "Nothing found",
  speaksFor: "For",
  speaksAgainst: "Against",
  silent: "Nothing speaks for or against it yet.",
  repair: "Repair",
  weight: (weight: number) =>
    Math.abs(weight) >= 1.5 ? "weighs much" : Math.abs(weight) >= 0.7 ? "weighs" : "weighs a little",
  ruledOut: "Ruled out by",
  objective: "Choose tests for",
  wouldChange: "What would change the order",
  more: "Other tests",
};
