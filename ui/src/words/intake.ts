export const intake = {
  title: "Intake",
  jump: "On this page",
  jumps: [
    ["complaint", "Complaint"],
    ["look", "First look"],
    ["van", "Van"],
    ["plate", "Plate"],
    ["visits", "Visits"],
  ] as const,
  complaint: "The complaint",
  words: "In the customer's words",
  symptoms: "What it does",
  device: "Which device went",
  moment: "At which moment",
  tried: "Tried before, and by whom",
  triedWhat: "What was tried",
  triedBy: "By",
  altered: "Found altered",
  alteredWhat: "Cut wire, bypass, wrong value",
  bypass: "It bypasses an interlock",
  bypassed: "bypassed interlock: danger, lifted in Safe",
  add: "Add",
  remove: (what: string) => `Remove ${what}`,
  kept: "Saved",
  keeping: "Saving …",
  notKept: "Not saved yet",
  conflict: "Someone else changed this page. What you typed is still here.",
  differs: "Different in theirs",
  keepMine: "Save mine",
  takeTheirs: "Use theirs",
  fields: {
    machine: "machine",
    place: "place",
    sheet: "sheet",
    complaint: "complaint",
    plate: "data plate",
  } as Record<string, string>,
};

export const plate = {
  title: "Data plate",
  machine: "Machine",
  place: "Place",
  sheet: "Machine sheet",
  copy: "Copy this sheet",
  copyTitle: "Title of the copy",
  copyDo: "Copy and use it",
  type: "Type number",
  typeHelp: "Exactly as printed: parts are ordered by it",
  serial: "Serial number",
  volts: "Volts",
  hertz: "Hertz",
  watts: "Watts",
  class: "Class",
  asSheet: (figures: string, of: string) => `As the sheet: ${figures}${of && `, class ${of}`}`,
  variants: "Part variants seen",
  variantsHelp: "e.g. pump: grey plug, two tags",
  notNumber: "is not a number",
  photo: "Photo of the plate",
  photoHelp: "Saved upright and small, without location data",
  photoTake: "Take or choose a photo",
  photoRemove: "Remove the photo",
  photoOf: (width: number, height: number) => `Photo of the plate, ${width} by ${height} pixels`,
};

export const look = {
  title: "First look outside",
  outlet: "Outlet, machine unplugged",
  cord: "Cord, its plug in the hand",
  running: "Plugged in, panels shut: what it draws",
  caution:
    "The outlet is live: probes rated for it, one hand. With the plug in your hand and the covers on, only its pins and bare metal are read.",
  inHand: "Plug is in my hand, covers on",
  should: "should read",
  good: "Good",
  bad: "Bad",
  note: "What you saw",
  keepNote: "Save",
  end: "End the job here",
  endWhy: "Why it ends",
  endDo: "End the job",
  unsafe: "The machine is labelled unsafe, the customer knows",
  leftAs: "How it is left",
  outletReported: "The outlet is reported, the machine stays unplugged",
  reopen: "Reopen the job",
  cancel: "Cancel",
};

export const van = {
  title: "Take along",
  none: "Choose what it does: the parts for it are listed here.",
  parts: "Parts",
  tools: "Tools",
  explains: "explains",
};

export const visits = {
  title: "Earlier visits",
  none: "First visit to this machine.",
  open: "not ended",
};

/** How a machine is left behind. */
export const endings = {
  unplugged: "unplugged",
  locked_off: "locked off",
  customer_refused: "the customer refused",
} as const;
