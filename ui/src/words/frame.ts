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
  sound: { on: "Sound on", off: "Sound off" },
  soundChange: (isOn: boolean) =>
    isOn ? "Sound on: turn it off" : "Sound off: turn it on, a tone for inside, another for outside",
  themeChange: "Change between day and night",
  skip: "Skip to the sheet",
  notFound: "There is no page at this address.",
  toJobs: "Go to Jobs",
  again: "Try again",
  failed: "This page could not be drawn",
  failedHelp: "What is stored is safe, and what was typed is kept.",
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
  pluggedIn: "Plugged in, panels shut",
  stillHere: "Still here",
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
  keys: "n next · ? keys",
};

export const undo = {
  undo: "Undo",
  done: (what: string) => `${what.slice(0, 1).toUpperCase()}${what.slice(1)}`,
};

export const run = {
  heat: "Time the heating",
  fields: {
    litres: "Water, litres",
    from_celsius: "Water at the start, °C",
    to_celsius: "Water at the end, °C",
    minutes: "Minutes of heating",
  },
  badNumber: (field: string) => `${field}: not a number. Type one, e.g. 12.`,
  missing: (field: string) => `${field} is missing: give all four, or none.`,
  onGfci: "Did it run on a GFCI?",
  gfci: { house: "Yes, the house's", brought: "Yes, one I brought along", none: "No" },
};

export const photo = {
  busy: (left: number) => (left > 1 ? `Saving ${left} photos …` : "Saving the photo …"),
  several: (first: string, count: number) => `${first} (and ${count - 1} more were not saved)`,
};

export const reading = {
  doorNow: "Door or lid now",
  doors: { open: "open", shut: "shut", locked: "locked" },
  doorFirst: "Say first how door or lid stands now: the contact says nothing without it.",
  reads: "reads",
  log: "Log",
};

export const keysTitle = "Keys";
/** The same in every room. */
export const keys: [string, string][] = [
  ["/", "to the line: type a reading, or find a job"],
  ["n", "do what is next"],
  ["↑  ↓", "move along the lines"],
  ["Enter", "take the chosen line; log what is typed"],
  ["Tab", "take the name that is offered"],
  ["Esc", "leave the line"],
  ["u", "undo what was done last"],
  ["w", "why: what the line should read, and by what"],
  ["m", "live mode"],
  ["d", "the ladder, and back"],
  ["r 1 … 8", "rooms of the job: Intake, Safe, Codes, Trace, Trip, Repair, Prove, Sheet-out"],
  ["r j m h s", "Jobs, Machines, Shelf, Setup"],
  ["?", "this list"],
];

export const keypad = {
  title: "Keypad",
  keyboard: "Letters",
  enter: "Log",
  erase: "Delete one character",
  space: "Space",
};
