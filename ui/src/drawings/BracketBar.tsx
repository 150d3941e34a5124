import type { TripView } from "../api/trip";
import "./bracketBar.css";

type Part = TripView["parts"][number];
const WIDTH = 66;

/** A proved bracket against its limit, which stands in the middle; worse at the left, as on the ohm ruler. */
export function BracketBar({ bracket, state }: { bracket: Part["bracket"]; state: Part["state"] }) {
  const lo = 2 + (1 - bracket.hi) * (WIDTH - 4);
  const hi = 2 + (1 - bracket.lo) * (WIDTH - 4);
  return (
    <svg width={WIDTH} height={24} aria-hidden className={`bracket-bar ${state}`}>
      <line className="bracket-scale" x1={2} x2={WIDTH - 2} y1={12} y2={12} />
      <rect className="bracket-span" x={lo} y={6} width={Math.max(2, hi - lo)} height={12} rx={2} />
      {!bracket.is_open_above && <line className="bracket-end" x1={lo} x2={lo} y1={4} y2={20} />}
      <line className="bracket-limit" x1={WIDTH / 2} x2={WIDTH / 2} y1={0} y2={24} />
    </svg>
  );
}
