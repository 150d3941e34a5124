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

export const photo = {
  busy: (left: number) => (left > 1 ? `Keeping ${left} photos …` : "Keeping the photo …"),
  several: (first: string, count: number) => `${first} (and ${count - 1} more were not kept)`,
};

export const reading = { reads: "reads", log: "Log" };
