import { NativeSelect } from "@mantine/core";
import type { Objective, Suspect, SuspectsView } from "../../api/suspects";
import { Card } from "../../app/controls/Card";
import { suspects as words } from "../../words/suspects";
import "./suspects.css";

const SHOWN = 5;

type Props = { view: SuspectsView; onObjective: (objective: Objective) => void };

/** The suspects as bars, each with what speaks for and against it. */
export function SuspectsCard({ view, onObjective }: Props) {
  return (
    <Card className="suspects" aria-label={words.title}>
      <h2>{words.title}</h2>
      {view.preparing ? (
        <div className="preparing" role="status">
          <progress aria-hidden="true" />
          <p>{view.preparing}</p>
        </div>
      ) : (
        <p aria-live="polite">{view.sentence}</p>
      )}
      {view.cured && view.cured !== view.sentence && <p className="cured">{view.cured}</p>}
      {view.standing !== "settled" && <Suspects view={view} onObjective={onObjective} />}
    </Card>
  );
}

/** Who may be at fault, and what the next question is chosen for. */
function Suspects({ view, onObjective }: Props) {
  return (
    <>
      <ol>
        {view.suspects.slice(0, SHOWN).map((row) => (
          <SuspectRow key={row.part} suspect={row} />
        ))}
        {view.nothing > 0.01 && (
          <li className="suspect-line">
            <Bar chance={view.nothing} title={words.nothing} said={percent(view.nothing)} />
          </li>
        )}
      </ol>
      {view.alike.map((row) => (
        <p key={row} className="notice">
          {row}
        </p>
      ))}
      {view.would_change.length > 0 && (
        <details>
          <summary>{words.wouldChange}</summary>
          <ul>
            {view.would_change.map((row) => (
              <li key={row}>{row}</li>
            ))}
          </ul>
        </details>
      )}
      <NativeSelect
        label={words.objective}
        value={view.objective}
        data={view.objectives.map((row) => ({ value: row.id, label: row.words }))}
        onChange={(event) => onObjective(event.currentTarget.value as Objective)}
      />
    </>
  );
}

const percent = (chance: number) => `${Math.round(100 * chance)} %`;

function Bar({ chance, title, said }: { chance: number; title: string; said: string }) {
  return (
    <>
      <span className="suspect-name">{title}</span>
      <span className="suspect-bar" aria-hidden="true">
        <span style={{ width: `${100 * chance}%` }} />
      </span>
      <span className="suspect-chance">{said}</span>
    </>
  );
}

function SuspectRow({ suspect }: { suspect: Suspect }) {
  return (
    <li>
      <details>
        <summary className="suspect-line">
          <Bar chance={suspect.chance} title={suspect.title} said={suspect.words} />
        </summary>
        {suspect.ruled_out_by && (
          <p>
            {words.ruledOut} <b>{suspect.ruled_out_by}</b>
          </p>
        )}
        <Evidence label={words.speaksFor} rows={suspect.speaks_for} />
        <Evidence label={words.speaksAgainst} rows={suspect.speaks_against} />
        {suspect.speaks_for.length + suspect.speaks_against.length === 0 && (
          <p className="quiet">{words.silent}</p>
        )}
        <p className="quiet">
          {words.repair}: {suspect.repair}, {suspect.minutes} min
        </p>
      </details>
    </li>
  );
}

function Evidence({ label, rows }: { label: string; rows: Suspect["speaks_for"] }) {
  if (rows.length === 0) return null;
  return (
    <>
      <h3>{label}</h3>
      <ul>
        {rows.map((row) => (
          <li key={row.id}>
            {row.title} <span className="quiet">{words.weight(row.weight)}</span>
          </li>
        ))}
      </ul>
    </>
  );
}
