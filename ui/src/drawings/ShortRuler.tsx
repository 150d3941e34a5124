import type { Schemas, Verdict } from "../api/client";
import { verdictColour } from "./VerdictMark";
import "./ruler.css";

type Props = { ruler: Schemas["ShortRuler"]; verdict: Verdict | null; width: number; labels: boolean };

const PAD = 8;

/** One line's own ruler: the window, and the reading with all values that it may stand for. */
export function ShortRuler({ ruler, verdict, width, labels }: Props) {
  const at = (x: number) => PAD + x * (width - 2 * PAD);
  const height = labels ? 48 : 22;
  return (
    <svg width={width} height={height} aria-hidden="true" className="short-ruler">
      <line x1={0} x2={width} y1={14} y2={14} className="short-rail" />
      <rect
        x={at(ruler.window_lo)}
        y={6}
        width={Math.max(3, at(ruler.window_hi) - at(ruler.window_lo))}
        height={16}
        rx={3}
        className="ruler-band chosen"
      />
      {ruler.pin !== null && ruler.pin !== undefined && (
        <g style={{ color: verdictColour(verdict) }}>
          <line
            x1={at(ruler.lo ?? 0)}
            x2={at(ruler.hi ?? 1)}
            y1={14}
            y2={14}
            stroke="currentColor"
            strokeWidth="5"
          />
          <circle
            cx={at(ruler.pin)}
            cy={14}
            r={6.5}
            fill="currentColor"
            stroke="var(--sheet)"
            strokeWidth="2"
          />
        </g>
      )}
      {labels && (
        <>
          <Label x={at(ruler.window_lo)} text={ruler.label_lo} anchor="start" />
          <Label x={at(ruler.window_hi)} text={ruler.label_hi} anchor="end" />
        </>
      )}
    </svg>
  );
}

function Label({ x, text, anchor }: { x: number; text: string; anchor: "start" | "end" }) {
  return (
    <text x={x} y={42} textAnchor={anchor} className="ruler-label">
      {text}
    </text>
  );
}
