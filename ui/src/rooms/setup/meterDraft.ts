import type { Meter, MeterFunction } from "../../api/client";
import { figure } from "../../app/figure";

export type Figure = "full_scale" | "resolution" | "percent" | "digits";
export type RangeDraft = Record<Figure, string> & {
  key: string;
  function: string;
  isFirst: boolean;
  unit: string;
  factor: number;
};
export type Draft = {
  id: string;
  title: string;
  impedance: string;
  leads: string;
  nulled: boolean;
  serial: string;
  calibrated: string;
  overRange: string;
  ranges: RangeDraft[];
};

const MEGA = 1e6;
const UNITS: Record<MeterFunction, string> = {
  ohm: "Ω",
  continuity: "Ω",
  insulation: "Ω",
  leakage: "A",
  capacitance: "F",
  diode: "V",
  volts_ac: "V",
  volts_dc: "V",
  ampere: "A",
  hertz: "Hz",
  temperature: "°C",
  length: "m",
  rcd_current: "A",
  rcd_time: "s",
};
const PREFIXES: [number, string][] = [
  [1e6, "M"],
  [1e3, "k"],
  [1, ""],
  [1e-3, "m"],
  [1e-6, "µ"],
  [1e-9, "n"],
];

/** A meter's figures as a leaflet prints them: with prefixes, as text. */
export function draftOf(meter: Meter): Draft {
  const ranges = Object.entries(meter.functions).flatMap(([name, rows]) =>
    rows.map((row, index) => {
      const [factor, prefix] = PREFIXES.find(([size]) => row.full_scale >= size * 0.999) ?? [1, ""];
      return {
        key: `${name}-${index}`,
        function: name,
        isFirst: index === 0,
        unit: prefix + UNITS[name as MeterFunction],
        factor,
        full_scale: tidy(row.full_scale / factor),
        resolution: tidy(row.resolution / factor),
        percent: String(row.percent),
        digits: String(row.digits),
      };
    }),
  );
  return {
    id: meter.id,
    title: meter.title,
    impedance: tidy((meter.input_impedance_ohm ?? 10 * MEGA) / MEGA),
    leads: String(meter.lead_resistance_ohm ?? 0),
    nulled: meter.nulled ?? false,
    serial: meter.serial ?? "",
    calibrated: meter.calibrated ?? "",
    overRange: meter.over_range_texts?.length ? "one" : meter.shows_ol === false ? "greater" : "ol",
    ranges,
  };
}

/** The meter that a draft describes; what is no number goes as it is and comes back as a clear refusal. */
export function meterOf(draft: Draft): Meter {
  const functions: Record<string, Meter["functions"][string]> = {};
  for (const row of draft.ranges) {
    const range = {
      full_scale: figure(row.full_scale) * row.factor,
      resolution: figure(row.resolution) * row.factor,
      percent: figure(row.percent),
      digits: figure(row.digits),
    };
    functions[row.function] = [...(functions[row.function] ?? []), range];
  }
  return {
    id: draft.id,
    title: draft.title,
    functions,
    input_impedance_ohm: figure(draft.impedance) * MEGA,
    lead_resistance_ohm: figure(draft.leads),
    nulled: draft.nulled,
    serial: draft.serial,
    calibrated: draft.calibrated,
    shows_ol: draft.overRange === "ol",
    over_range_texts: draft.overRange === "one" ? ["1", "1."] : [],
  };
}

function tidy(value: number): string {
  return String(Number(value.toPrecision(6)));
}
