import type { Verdict } from "../api/client";
import { trace, verdictWords } from "../words/trace";

const INSIDE = "var(--inside)";
const OUTSIDE = "var(--outside)";
const INK = "var(--ink)";
const OUTSIDE_VERDICTS = new Set<Verdict | null>(["outside_low", "outside_high", "open", "short"]);

/** The shape of a verdict: a bracket, and where the reading stands in it. Shape and word first, colour last. */
export function VerdictMark({ verdict, size = 46 }: { verdict: Verdict | null; size?: number }) {
  const name = verdict ? verdictWords[verdict] : trace.notAsked;
  return (
    <svg width={size} height={(size * 26) / 46} viewBox="0 0 46 26" role="img" aria-label={name}>
      <title>{name}</title>
      {shape(verdict)}
    </svg>
  );
}

function bracket(colour: string) {
  return <path d="M11 2H6v22h5M35 2h5v22h-5" fill="none" stroke={colour} strokeWidth="2.4" />;
}

function arrow(colour: string, to: number) {
  const back = to < 23 ? 6 : -6;
  return (
    <path
      d={`M23 13H${to}M${to + back} 8L${to} 13l${back} 5`}
      fill="none"
      stroke={colour}
      strokeWidth="2.6"
      strokeLinecap="round"
    />
  );
}

function shape(verdict: Verdict | null) {
  switch (verdict) {
    case null:
      return bracket("var(--rule-strong)");
    case "inside":
      return (
        <>
          {bracket(INSIDE)}
          <circle cx="23" cy="13" r="4.6" fill={INSIDE} />
        </>
      );
    case "outside_low":
      return (
        <>
          {bracket(OUTSIDE)}
          {arrow(OUTSIDE, 0.5)}
        </>
      );
    case "outside_high":
      return (
        <>
          {bracket(OUTSIDE)}
          {arrow(OUTSIDE, 45.5)}
        </>
      );
    case "unsure":
      return (
        <>
          {bracket(INK)}
          <circle cx="40" cy="13" r="4.6" fill="var(--sheet)" stroke={INK} strokeWidth="2.4" />
        </>
      );
    case "open":
      return (
        <>
          {bracket(OUTSIDE)}
          <path d="M9 13h9M28 13h9" stroke={OUTSIDE} strokeWidth="3" />
          <path d="M18 8v10M28 8v10" stroke={OUTSIDE} strokeWidth="2" />
        </>
      );
    case "short":
      return (
        <>
          {bracket(OUTSIDE)}
          <path d="M6 13h34" stroke={OUTSIDE} strokeWidth="4" />
        </>
      );
    case "not_judged":
      return <circle cx="23" cy="13" r="4.6" fill="none" stroke={INK} strokeWidth="2.4" />;
  }
}

/** Whether a reading is surely not that of a good part. */
export function isOutside(verdict: Verdict | null | undefined): boolean {
  return OUTSIDE_VERDICTS.has(verdict ?? null);
}

/** The colour in which a verdict is written. */
export function verdictColour(verdict: Verdict | null | undefined): string {
  if (verdict === "inside") return INSIDE;
  if (!verdict || verdict === "unsure" || verdict === "not_judged") return INK;
  return OUTSIDE;
}
