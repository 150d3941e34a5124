import type { EventBody } from "../api/client";

export const safe = {
  title: "Safe",
  steps: "Make it safe",
  caution: "Work for competent persons; local codes and licensed practice come first.",
  unplugged: "Unplugged, plug in sight",
  lockedOff: "Locked off",
  again: "Cut off again",
  done: "done",
  tick: (title: string) => `${title}: done`,
  reads: "reads",
  atMost: "should read",
  next: "next",
  withMeter: "with",
  meter: "Meter for the whole series",
  anyMeter: "as it reads",
  stillHere: "Still here",
  until: (time: string) => `Holds unattended until ${time}.`,
  liveUntil: (time: string) => `It ends by itself at ${time}.`,
  hazards: "Open dangers",
  noHazards: "No danger is open.",
  forPower: "Before any power",
  cautions: "On this machine",
  records: "What was done",
  noRecords: "Nothing yet.",
};

export const power = {
  title: "Power",
  plugIn: "Plug in, panels shut",
  plugInHelp: "For codes and test cycles. It clears the proof of dead.",
  live: "Work live",
  liveTitle: "Work on the open machine under voltage",
  liveHelp:
    "For competent persons; local codes and licensed practice come first. All wiring counts as mains, the sensors' too: no earthed instrument. Volts only: ohms, continuity, capacitance and insulation readings are refused. It ends by itself: after its time, or when a panel comes off.",
  reason: "What has to be measured under voltage",
  stays: "What stays connected",
  staysHelp: "The earth always",
  minutes: "Minutes",
  begin: "Begin",
  leaveLive: "Leave live mode",
  panel: "A panel comes off",
  panelDo: "It is off",
  tripped: "It tripped",
  device: "Which device",
  moment: "At which moment",
  trippedDo: "Log the trip",
  reclose: "Closed again, once",
  hazard: "Danger found",
  hazardWhat: "What",
  hazardWords: "What you saw, smelt or felt",
  hazardDo: "Note the danger",
  bypassOut: "Bypass taken out",
  bypassHow: "How, and how it was tried",
  cancel: "Leave",
};

export const hazardWords = {
  shock: "shock or tingle",
  burnt_smell: "burnt smell",
  water_inside: "water inside",
  bypass: "interlock bypassed",
} as const;

type Kind = EventBody["kind"];

/** One event in a few words, for the list of what was done. */
export function recordWords(body: EventBody): string {
  const words: Record<NonNullable<Kind>, string> = {
    isolated:
      body.kind === "isolated" && body.how === "locked_off" ? "locked off" : "unplugged, plug in sight",
    plugged_in: "plugged in, panels shut",
    live_begun: body.kind === "live_begun" ? `live: ${body.reason}` : "",
    live_ended: "live mode left",
    opened: body.kind === "opened" ? `panel off: ${body.panel}` : "",
    step_ticked:
      body.kind === "step_ticked" ? `${body.step} ${body.is_done === false ? "not done" : "done"}` : "",
    attended: "still here",
    tripped: "tripped",
    reclosed: "closed again",
    hazard_found: body.kind === "hazard_found" ? `danger: ${body.words || body.hazard}` : "",
    changed: body.kind === "changed" ? `${body.part}: ${body.intervention}` : "",
    run_watched: body.kind === "run_watched" ? `watched a run: ${body.outcome}` : "",
    skipped: body.kind === "skipped" ? `left out ${body.test}` : "",
    circuit_noted: "circuit of the house noted",
    earth_lifted: body.kind === "earth_lifted" ? `earth off: ${body.part}` : "",
    earth_refitted: body.kind === "earth_refitted" ? `earth back: ${body.part}` : "",
    run_withdrawn: "run taken back",
    bypass_removed: body.kind === "bypass_removed" ? `bypass out: ${body.words}` : "",
    checked: body.kind === "checked" ? `${body.check.replaceAll("_", " ")}: ${body.outcome}` : "",
    codes_read: body.kind === "codes_read" ? `codes read: ${body.codes.join(", ") || "none stored"}` : "",
    entry_tried:
      body.kind === "entry_tried" && body.is_in ? "service mode entered" : "service mode not entered",
    cycle_begun: "test cycle begun",
    cycle_ticked: body.kind === "cycle_ticked" ? `${body.step}: ${body.outcome}` : "",
    run_made: body.kind === "run_made" ? `run: ${body.text}` : "",
    run_doubted: "run doubted, or counted again",
    ended: body.kind === "ended" ? `ended: ${body.why}` : "",
    proof_made: "Shown for the proof",
    insulation_not_allowed: "Insulation may not be tested",
    reopened: "reopened",
    strip_step: body.kind === "strip_step" ? `off: ${body.words}` : "",
    strip_back: "back",
    connector_noted: body.kind === "connector_noted" ? `connector: ${body.words}` : "",
    connector_ticked: "connector held against its photo",
    costs_noted: "costs noted",
  };
  return body.kind ? words[body.kind] : "";
}
