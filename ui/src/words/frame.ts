import type { Stands } from "../api/power";

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
  stageStates: { done: "done", blocked: "blocked", open: "to do" },
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

export const safetyWords: Record<Stands, string> = {
  not_proved: "Not proved dead",
  dead: "Dead",
  live: "LIVE",
  under_voltage: "UNDER VOLTAGE",
  unknown: "State not known",
};

export const strip = {
  open: "State of safety, go there",
  opened: "opened",
  proved: "proved at",
  noPower: "No power",
  ended: "Ended",
  until: "until",
  unknown: "The server does not answer: take the machine for live.",
  shout: (what: string) => `${what.slice(0, 1).toUpperCase()}${what.slice(1)}. Hands off.`,
};

export const next = {
  title: "Next",
  and: " and ",
  named: (parts: string) => `Named: ${parts}.`,
  next: (what: string) => `Next: ${what}`,
  here: (what: string) => `Next, here: ${what}`,
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

export const when = { before: "Before it was cut off", now: "Now: it is under voltage again" };
