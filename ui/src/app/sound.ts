import type { Line, Trace } from "../api/client";
import { readKept, useForm } from "./useForm";

const KEY = "ohmcensus.sound";
/** Hertz and seconds, one tone after the other: high and short for inside, two low ones for outside. */
const TONES = {
  inside: [[880, 0.09]],
  outside: [
    [311, 0.14],
    [233, 0.2],
  ],
} as const;
const GAP = 0.03;
const LOUDNESS = 0.2;

type Tone = keyof typeof TONES;

/** Whether readings sound, and the switch; off until somebody wants it. */
export function useSound(): [boolean, () => void] {
  const [isOn, setOn] = useForm(KEY, false);
  const turn = () => {
    setOn(!isOn);
    // The first tone answers the touch: browsers let a page sound only after one.
    if (!isOn) play("inside");
  };
  return [isOn, turn];
}

/** Sound what a reading came to, where sound is on: the eyes stay on the machine. */
export function soundReading(trace: Trace) {
  const line = trace.lines.find((row) => row.reading_id === trace.last_reading);
  const tone = toneOf(line?.verdict);
  if (tone && readKept<boolean>(KEY)) play(tone);
}

function toneOf(verdict: Line["verdict"] | undefined): Tone | null {
  if (verdict === "inside") return "inside";
  return verdict?.startsWith("outside") ? "outside" : null;
}

let speaker: AudioContext | null = null;

function play(tone: Tone) {
  if (typeof AudioContext === "undefined") return;
  speaker ??= new AudioContext();
  let at = speaker.currentTime;
  for (const [hertz, seconds] of TONES[tone]) {
    const source = speaker.createOscillator();
    const volume = speaker.createGain();
    source.frequency.value = hertz;
    volume.gain.value = LOUDNESS;
    source.connect(volume).connect(speaker.destination);
    source.start(at);
    source.stop(at + seconds);
    at += seconds + GAP;
  }
}
