import type { Safety } from "../api/client";

export const frame = {
  name: ["ohm", "census"] as const,
  stages: "Stages of the job",
  rooms: "Rooms of the firm",
  intake: "Intake",
  safe: "Safe",
  codes: "Codes",
  trace: "Trace",
  trip: "Trip",
  repair: "Repair",
  prove: "Prove",
  sheetOut: "Sheet-out",
  stageStates: { done: "done", blocked: "blocked", open: "open" },
  jobs: "Jobs",
  machines: "Machines",
  shelf: "Shelf",
  setup: "Setup",
  theme: { light: "Day", dark: "Night" },
  themeChange: "Change between day and night",
  skip: "Skip to the sheet",
  notFound: "There is nothing at this address.",
  toJobs: "To the jobs",
  close: "Close",
  loading: "Reading the job …",
};

export const safetyWords: Record<Safety, string> = {
  not_proved: "Not proved dead",
  dead: "Dead",
  live: "LIVE",
};

export const strip = {
  open: "State of safety, go there",
  opened: "opened",
  proved: "proved at",
  noPower: "No power",
  ended: "Ended",
};

export const run = {
  heat: "Time the warming of the water",
  fields: {
    litres: "Water, litres",
    from_celsius: "Begins at, °C",
    to_celsius: "Ends at, °C",
    minutes: "Minutes of heating",
  },
  badNumber: (field: string) => `${field}: that is no number. Type one, e.g. 12.`,
  missing: (field: string) => `${field} is missing: give all four, or none.`,
};

export const photo = {
  busy: (left: number) => (left > 1 ? `Keeping ${left} photos …` : "Keeping the photo …"),
  several: (first: string, count: number) => `${first} (and ${count - 1} more were not kept)`,
};

export const reading = { reads: "reads", log: "Log" };
