import type { MeterFunction, Verdict } from "../api/client";

export const trace = {
  ruler: "Ohm ruler",
  rulerTable: "Readings on the ohm ruler",
  sheet: "Census sheet",
  columns: {
    part: "Part, in the order current meets it",
    reads: "Reads",
    should: "Should read",
    says: "Says",
  },
  notAsked: "not asked",
  hasNote: "has a note",
  twoPoints: "Between two points",
  twoPointsHelp: "A reading that no test on this sheet names. It is kept as it reads.",
  firstPoint: "First point",
  secondPoint: "Second point",
  meterDid: "The meter read",
  reading: "Reading",
  log: "Log it",
  cancel: "Leave",
  export: "Job sheet as",
  complaint: "Complaint",
  loading: "Reading the job …",
  opened: "opened",
};

export const line = {
  next: "Next on the sheet",
  take: "Take it",
  nextWhy: "not asked yet",
  allAsked: "Every line that can be asked dead has been asked.",
  shouldRead: "Should read",
  between: "Between",
  how: "How",
  blind: "Blind to",
  note: "Note on this line",
  notePlaceholder: "What you saw, did or doubt",
  keepNote: "Keep the note",
  history: "Every reading of this line",
  correct: "Correct",
  takeBack: "Take back",
  superseded: "replaced",
  withdrawn: "taken back",
  by: "with",
  alone: "alone",
  pick: "Choose a line, or type one below.",
};

export const quick = {
  label: "Type a part and a reading",
  placeholder: "e.g. heater 25.9",
  next: "next",
  keys: "/ type · u undo · ? keys",
  correcting: "Correcting",
  stopCorrecting: "Leave it as it is",
  meter: "Meter in hand",
  anyMeter: "Meter: as it reads",
  logged: "Logged",
  saving: "Saving …",
  undone: "Taken back",
  nothingToUndo: "There is no reading to take back.",
  keyboard: "abc",
  enter: "Log",
  erase: "Erase one sign",
  space: "Space",
};

export const keys: [string, string][] = [
  ["/", "type a reading"],
  ["Enter", "log what is typed"],
  ["Tab", "take the name that is offered"],
  ["n", "take the next line on the sheet"],
  ["j  k", "move down and up the sheet"],
  ["c", "correct the reading of this line"],
  ["e", "evidence: why this line should read so"],
  ["u", "undo: take the last reading back"],
  ["l", "state of safety, live mode"],
  ["g 4", "go to Trace"],
  ["g j  g s", "go to Jobs, to Setup"],
  ["?", "this list"],
  ["Esc", "leave the line"],
];
export const keysTitle = "Keys";

export const verdictWords: Record<Verdict, string> = {
  inside: "inside",
  outside_low: "outside, low",
  outside_high: "outside, high",
  unsure: "unsure",
  open: "open",
  short: "short",
  not_judged: "not judged",
};

export const functionWords: Record<MeterFunction, string> = {
  ohm: "ohms",
  continuity: "low ohms, continuity",
  insulation: "insulation",
  leakage: "leakage current",
  capacitance: "capacitance",
  volts_ac: "volts AC",
  volts_dc: "volts DC",
  ampere: "amperes",
  hertz: "hertz",
  temperature: "temperature",
  length: "length",
};
