import { Link } from "react-router";
import { useEvent } from "../../api/events";
import type { TripView } from "../../api/trip";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { EventProblem } from "../../app/EventProblem";
import { AS_NEXT } from "../../app/underHand";
import { trip as words } from "../../words/trip";

/** Beyond the runs: the part that was fitted and the same run again, earths off and back, the live school. */
export function AfterCulprit({ view }: { view: TripView }) {
  const record = useEvent(view.job.id);
  const guilty = view.parts.filter((part) => part.state === "guilty");
  return (
    <>
      {(guilty.length > 0 || view.repeated.length > 0) && (
        <Card aria-label={words.after}>
          <h2>{words.after}</h2>
          <p>{words.afterHint}</p>
          {view.repeated.map((row) => (
            <p key={row.words + row.before}>
              {row.words}. {words.before}: <b className="mono">{row.before}</b>, {words.now}:{" "}
              <b className="mono">{row.after || words.toRepeat}</b>
            </p>
          ))}
          <Act as={Link} look="plain" to={`/jobs/${view.job.id}/repair`} state={AS_NEXT}>
            {words.toRepair}
          </Act>
        </Card>
      )}
      <Card aria-label={words.earth}>
        <details>
          <summary>{words.earth}</summary>
          <p>{words.earthHint}</p>
          <div className="chips">
            {view.parts
              .filter((part) => part.has_earth)
              .map((part) => (
                <Act
                  look="plain"
                  key={part.id}
                  onClick={() =>
                    record.mutate({
                      kind: part.is_earth_off ? "earth_refitted" : "earth_lifted",
                      part: part.id,
                    })
                  }
                >
                  {part.is_earth_off ? words.refit(part.title) : words.lift(part.title)}
                </Act>
              ))}
          </div>
        </details>
        <details>
          <summary>{words.schools}</summary>
          <p>{words.schoolsHint}</p>
        </details>
        <p className="quiet">
          {words.limits}: {view.limits}
        </p>
        <EventProblem event={record} />
      </Card>
    </>
  );
}
