import type { TripView } from "../../api/trip";
import { Card } from "../../app/controls/Card";
import { trip as words } from "../../words/trip";

const MOST = 6;
const LEAST = 0.01;

/** What device and moment say before any meter: the parts that stood at line potential, and what is asked first. */
export function TriageCard({ triage }: { triage: TripView["triage"] }) {
  const shown = triage.parts.filter((part) => part.share >= LEAST).slice(0, MOST);
  return (
    <Card className="trip-triage" aria-label={words.triage}>
      <h2>{words.triage}</h2>
      <p>{triage.told ? <b>{triage.words}</b> : words.untold}</p>
      {triage.told && (
        <>
          <p>
            {words.classes}: {triage.classes.join("; ")}.
          </p>
          {triage.notes.map((note) => (
            <p key={note}>{note}</p>
          ))}
          <h3>{words.first}</h3>
          <ol>
            {triage.first.map((row) => (
              <li key={row}>{row}</li>
            ))}
          </ol>
          <h3>{words.likeliest}</h3>
          <ul className="triage-parts">
            {shown.map((part) => (
              <li key={part.id}>
                <b>{part.title}</b>
                <span className="share" aria-hidden="true">
                  <span style={{ width: `${Math.round(100 * part.share)}%` }} />
                </span>
                <span className="mono">{Math.round(100 * part.share)} %</span>
                <span className="quiet">{part.words}</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </Card>
  );
}
