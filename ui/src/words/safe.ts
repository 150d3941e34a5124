import type { EventBody } from "../api/client";

export const safe = {
  title: "Safe",
  steps: "Make it safe",
  caution: "Work for competent persons; local codes and licensed practice come first.",
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
  hazards: "Dangers",
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
    "For competent persons; local codes and licensed practice come first. All wiring counts as mains, the sensors' too: no earthed instrument. Volts only: ohms, continuity, capacitance and insulation readings are refused. It ends by itself, after its time or when a panel comes off, and then the machine counts as under voltage until it is unplugged.",
  leaveHelp: "The machine is still under voltage after this: unplug it, and note it under Cut it off.",
  stated: (what: string) => `I state: ${what}`,
  reason: "What has to be measured under voltage",
  stays: "What stays connected",
  staysHelp: "The earth always",
  minutes: "Minutes",
  begin: "Begin",
  leaveLive: "Leave live mode",
  refused: "No power yet: what stands under Dangers comes first.",
  happened: "What happened",
  handsOff: "My hands are off it",
  panel: "A cover off or back",
  off: (cover: string) => `${cover} is off`,
  shut: (cover: string) => `${cover} is back`,
  tripped: "It tripped",
  device: "Which device",
  moment: "At which moment",
  trippedDo: "Log the trip",
  machine: "And the machine was",
  machines: { in: "plugged in", out: "unplugged" },
  reclosedWith: { in: "With the machine plugged in", out: "With the machine unplugged" },
  reclose: "Closed again, once",
  powered: "It was under voltage all the same",
  poweredHow: "How that showed",
  poweredDo: "Note it",
  outlet: "Another outlet",
  outletWhich: "Which outlet is read from here on",
  outletDo: "Note the outlet",
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
  dry: "heated without water",
} as const;

export const danger = {
  forbids: "Meanwhile:",
  liftedBy: "Next, to lift it:",
  place: "Where it was",
  placePart: "At which part",
  noPart: "none on the sheet",
  placeSeen: "What you saw there",
  placeDo: "Note the place",
  inError: "Noted in error",
  because: "Because (ten characters at least; it is printed with your name)",
  inErrorDo: "Take it back",
};

const CUTS = {
  unplugged: "unplugged, plug in sight",
  plug_in_hand: "pulled plug in the hand",
  locked_off: "locked off",
  switched_off: "switched off, notice hung",
} as const;

type Kind = EventBody["kind"];

/** One event in a few words, for the list of what was done. */
export function recordWords(body: EventBody): string {
  const words: Record<NonNullable<Kind>, string> = {
    isolated: body.kind === "isolated" ? CUTS[body.how ?? "unplugged"] : "",
    plugged_in: "plugged in, panels shut",
    live_begun: body.kind === "live_begun" ? `live: ${body.reason}` : "",
    live_ended: "live mode left",
    opened: body.kind === "opened" ? `cover off: ${body.panel}` : "",
    step_ticked:
      body.kind === "step_ticked" ? `${body.step} ${body.is_done === false ? "not done" : "done"}` : "",
    attended: "still here",
    shut: body.kind === "shut" ? `cover back: ${body.panel}` : "",
    found_powered: body.kind === "found_powered" ? `under voltage all the same: ${body.words}` : "",
    hands_off: "hands off it",
    place_noted: body.kind === "place_noted" ? `place noted: ${body.words}` : "",
    noted_in_error:
      body.kind === "noted_in_error" ? `noted in error: ${body.danger}, because ${body.because}` : "",
    outlet_named: body.kind === "outlet_named" ? `another outlet: ${body.words}` : "",
    stamped: body.kind === "stamped" ? `stamp of ${body.part}: ${body.rating} ${body.value}` : "",
    tripped: body.kind === "tripped" && body.machine === "out" ? "tripped, the machine unplugged" : "tripped",
    reclosed:
      body.kind === "reclosed" && body.machine === "out"
        ? "closed again, the machine unplugged"
        : "closed again",
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
