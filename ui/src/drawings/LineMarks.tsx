import type { Verdict } from "../api/client";
import { trace, verdictWords } from "../words/trace";
import { verdictColour } from "./VerdictMark";
import "./lineMarks.css";

const HEIGHT = 18;
const WIDEST = 17;

type Props = { verdicts: (Verdict | null)[]; asked: string | null; keys: string[]; width: number };

/** All lines of a part as small marks: hollow for not asked, a dot inside, a wedge outside; shape first, colour last. */
export function LineMarks({ verdicts, asked, keys, width }: Props) {
  const pitch = Math.min(WIDEST, width / Math.max(1, verdicts.length));
  return (
    <svg className="line-marks" width={width} height={HEIGHT} role="img" aria-label={said(verdicts)}>
      {verdicts.map((verdict, place) => (
        <g
          key={keys[place]}
          transform={`translate(${(place + 0.5) * pitch} ${HEIGHT / 2})`}
          style={{ color: verdictColour(verdict) }}
        >
          {shape(verdict, Math.min(1, pitch / 12))}
          {keys[place] === asked && <path d="M-4 8h8" stroke="var(--ink)" strokeWidth="2.4" />}
        </g>
      ))}
    </svg>
  );
}

function shape(verdict: Verdict | null, scale: number) {
  const r = 4.6 * scale;
  switch (verdict) {
    case null:
      return <rect x={-0.7 * r} y={-r} width={1.4 * r} height={2 * r} rx={1} className="mark-open" />;
    case "inside":
      return <circle r={r} fill="currentColor" />;
    case "unsure":
    case "not_judged":
      return <circle r={r} fill="none" stroke="currentColor" strokeWidth="2" />;
    default: {
      const up = verdict === "outside_high" || verdict === "open" ? -1 : 1;
      return (
        <path d={`M${-1.4 * r} ${-r * up}h${2.8 * r}l${-1.4 * r} ${2.4 * r * up}z`} fill="currentColor" />
      );
    }
  }
}

function said(verdicts: (Verdict | null)[]): string {
  const asked = verdicts.filter((verdict) => verdict !== null);
  const counts = new Map<Verdict, number>();
  for (const verdict of asked) counts.set(verdict, (counts.get(verdict) ?? 0) + 1);
  const each = [...counts].map(([verdict, count]) => `${count} ${verdictWords[verdict]}`);
  return [trace.askedOf(asked.length, verdicts.length), ...each].join(", ");
}
