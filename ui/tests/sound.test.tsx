import { fireEvent, render, screen } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import { soundReading, useSound } from "../src/app/sound";
import { HEATER, TRACE } from "./render";

const heard: number[] = [];

/** jsdom has no loudspeaker: this one writes down what it is told to sound. */
class Speaker {
  currentTime = 0;
  destination = {};
  createOscillator() {
    const source = {
      frequency: { value: 0 },
      connect: (next: object) => next,
      start: () => heard.push(source.frequency.value),
      stop: () => undefined,
    };
    return source;
  }
  createGain() {
    return { gain: { value: 0 }, connect: (next: object) => next };
  }
}

function Switch() {
  const [isOn, turn] = useSound();
  return (
    <button type="button" onClick={turn}>
      {isOn ? "on" : "off"}
    </button>
  );
}

const logged = (verdict: string | null) => ({
  ...TRACE,
  last_reading: "r-9",
  lines: [HEATER, { ...HEATER, key: "pump.coil", verdict: verdict as never, reading_id: "r-9" }],
});

beforeEach(() => {
  heard.length = 0;
  globalThis.AudioContext = Speaker as unknown as typeof AudioContext;
});

describe("a reading", () => {
  it("sounds only once somebody has turned sound on, and no more when it is off again", () => {
    soundReading(logged("inside"));
    expect(heard).toEqual([]);
    render(<Switch />);
    fireEvent.click(screen.getByRole("button", { name: "off" }));
    expect(heard).toHaveLength(1);
    soundReading(logged("inside"));
    expect(heard).toHaveLength(2);
    fireEvent.click(screen.getByRole("button", { name: "on" }));
    soundReading(logged("outside_low"));
    expect(heard).toHaveLength(2);
  });

  it.each([
    ["inside", 1],
    ["outside_low", 2],
    ["outside_high", 2],
    ["unsure", 0],
    ["not_judged", 0],
    [null, 0],
  ])("%s sounds %i tones: inside high, outside low, what is not known not at all", (verdict, tones) => {
    localStorage.setItem("ohmcensus.sound", "true");
    soundReading(logged(verdict));
    expect(heard).toHaveLength(tones);
    expect(heard.every((hertz) => (verdict === "inside" ? hertz > 500 : hertz < 500))).toBe(true);
  });

  it("is silent where a browser has no sound", () => {
    localStorage.setItem("ohmcensus.sound", "true");
    // @ts-expect-error: as in a browser without it
    globalThis.AudioContext = undefined;
    expect(() => soundReading(logged("inside"))).not.toThrow();
  });
});
