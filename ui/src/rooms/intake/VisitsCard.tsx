import { Link } from "react-router";
import type { Intake } from "../../api/client";
import { Card } from "../../app/controls/Card";
import { dayOf } from "../../app/times";
import { visits as words } from "../../words/intake";

/** What was found on this machine before. */
export function VisitsCard({ visits }: { visits: Intake["visits"] }) {
  return (
    <Card id="visits" aria-label={words.title}>
      <h2>{words.title}</h2>
      {visits.length === 0 && <p className="quiet">{words.none}</p>}
      <ul className="visits">
        {visits.map((visit) => (
          <li key={visit.id}>
            <Link to={`/jobs/${visit.id}/trace`}>
              {dayOf(visit.opened_at)}: {visit.complaint}
            </Link>
            <p>
              {visit.found.join(" · ")}
              {visit.found.length > 0 && " · "}
              <b>{visit.ended ?? words.open}</b>
            </p>
          </li>
        ))}
      </ul>
    </Card>
  );
}
