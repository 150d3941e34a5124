import { describe, expect, it } from "vitest";
import { ApiError, type Meter, NO_ANSWER, unwrap } from "../src/api/client";
import { clockOf, momentOf } from "../src/app/times";
import { draftOf, meterOf } from "../src/rooms/setup/meterDraft";

const METER: Meter = {
  id: "own-1",
  title: "Mine",
  functions: {
    ohm: [
      { full_scale: 600, resolution: 0.1, percent: 0.9, digits: 3 },
      { full_scale: 6000, resolution: 1, percent: 0.9, digits: 3 },
    ],
    capacitance: [{ full_scale: 60e-9, resolution: 10e-12, percent: 3, digits: 5 }],
  },
  input_impedance_ohm: 10e6,
  lead_resistance_ohm: 0.1,
  nulled: true,
  serial: "OC-T7",
  calibrated: "2026-03-01",
  over_range_texts: [],
  shows_ol: true,
};

describe("a meter's leaflet", () => {
  it("is shown with the prefixes that a leaflet prints", () => {
    const rows = draftOf(METER).ranges;
    expect(rows.map((row) => `${row.full_scale} ${row.unit}`)).toEqual(["600 Ω", "6 kΩ", "60 nF"]);
    expect(rows[2]?.resolution).toBe("0.01");
  });

  it("comes back as the same meter", () => {
    const again = meterOf(draftOf(METER));
    expect(again.functions.ohm).toEqual(METER.functions.ohm);
    expect(again.functions.capacitance?.[0]?.full_scale).toBeCloseTo(60e-9, 15);
    expect({ ...again, functions: {} }).toEqual({ ...METER, functions: {} });
  });

  it.each([
    ["one", false, ["1", "1."]],
    ["greater", false, []],
    ["ol", true, []],
  ] as const)("keeps how over-range shows: %s", (overRange, showsOl, texts) => {
    const meter = meterOf({ ...draftOf(METER), overRange });
    expect([meter.shows_ol, meter.over_range_texts]).toEqual([showsOl, [...texts]]);
    expect(draftOf(meter).overRange).toBe(overRange);
  });

  it("takes a decimal comma, and sends on what is no number to be refused", () => {
    const draft = draftOf(METER);
    expect(meterOf({ ...draft, leads: "0,3" }).lead_resistance_ohm).toBe(0.3);
    expect(meterOf({ ...draft, leads: "" }).lead_resistance_ohm).toBeNaN();
  });
});

describe("the clock on the job", () => {
  const opened = "2026-06-01T10:00:00Z";
  const at = (minutes: number) => Date.parse(opened) + minutes * 60_000;
  it.each([
    [0, "00:00"],
    [23, "00:23"],
    [605, "10:05"],
    [-5, "00:00"],
  ])("after %i minutes shows %s", (minutes, shown) =>
    expect(clockOf(opened, at(minutes), "opened")).toBe(shown),
  );
  it("gives way to the date once it is no longer one visit", () =>
    expect(clockOf(opened, at(60 * 30), "opened")).toBe("opened 1 Jun"));
  it("dates a moment of another day", () =>
    expect(momentOf(opened, at(60 * 48))).toMatch(/^1 Jun, \d\d:00$/));
});

describe("an answer of the server", () => {
  it("is its data", async () => expect(await unwrap(Promise.resolve({ data: 7 }))).toBe(7));
  it("is its problem in words", async () => {
    const problem = { type: "x", title: "t", status: 422, detail: "no 'heeter': heater?" };
    const caught = await unwrap(Promise.resolve({ error: problem })).catch((error: unknown) => error);
    expect(caught).toBeInstanceOf(ApiError);
    expect((caught as ApiError).message).toBe("no 'heeter': heater?");
  });
  it("that never came says that nothing is lost", async () =>
    expect(unwrap(Promise.reject(new TypeError("failed")))).rejects.toThrow(NO_ANSWER));
});
