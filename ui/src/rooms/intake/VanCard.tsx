import type { Intake } from "../../api/client";
import { Card } from "../../app/controls/Card";
import { van as words } from "../../words/intake";

/** What is worth taking before driving: parts by how well they explain the complaint, and tools. */
export function VanCard({ van }: { van: Intake["van"] }) {
  return (
    <Card id="van" aria-label={words.title}>
      <h2>{words.title}</h2>
      {van.parts.length === 0 ? (
        <p className="quiet">{words.none}</p>
      ) : (
        <ul className="van-parts">
          {van.parts.map((part) => (
            <li key={part.title}>
              <b>{part.title}</b>
              <span className="van-bar" aria-hidden>
                <span style={{ width: `${Math.round(part.weight * 100)}%` }} />
              </span>
              <span className="quiet">
                {words.explains} {part.because.join(", ")}
              </span>
            </li>
          ))}
        </ul>
      )}
      <h3>{words.tools}</h3>
      <p className="van-tools">{van.tools.join(" · ")}</p>
    </Card>
  );
}
