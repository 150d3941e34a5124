import type { Safety } from "../api/client";

export const frame = {
  name: ["ohm", "census"] as const,
  stages: "Stages of the job",
  rooms: "Rooms of the firm",
  trace: "Trace",
  jobs: "Jobs",
  setup: "Setup",
  theme: { light: "Day", dark: "Night" },
  themeChange: "Change between day and night",
  skip: "Skip to the sheet",
  notFound: "There is nothing at this address.",
  toJobs: "To the jobs",
  close: "Close",
};

export const safetyWords: Record<Safety, string> = {
  not_proved: "Not proved dead",
  dead: "Dead",
  live: "LIVE",
};

export const safetyDialog = {
  title: "What is known about voltage",
  open: "State of safety, change it",
  caution:
    "Work for competent persons; local codes and licensed practice come first. 0 V across a part's own tags proves nothing: measure L–N, L–E and N–E at the supply terminals, with the meter proved before and after.",
  dead: "It is proved dead",
  deadHow:
    "Unplugged with the plug in sight, at most 5 V AC at the terminals, at most 10 V DC on every capacitor.",
  notProved: "Not proved dead",
  notProvedHow: "Anything else. Plugging in again brings you here.",
  live: "Work live",
  liveHow:
    "Volts only. Ohms, continuity, capacitance and insulation readings are refused. The earth stays connected.",
  reason: "What has to be measured under voltage",
  reasonMissing: "Live mode needs a reason.",
  proved: "proved",
};
