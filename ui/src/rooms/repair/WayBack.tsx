import { IconCheck } from "@tabler/icons-react";
import { Link, useLocation } from "react-router";
import { useEvent } from "../../api/events";
import type { RepairView } from "../../api/repair";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { EventProblem } from "../../app/EventProblem";
import { AS_NEXT } from "../../app/underHand";
import { strip, wayBack as words } from "../../words/repair";
import { StripRow } from "./StripCard";
import { StripForm } from "./StripForm";

type Row = RepairView["way_back"][number];

/** What a change wants until the machine runs again: the new piece read, all back in reverse, the whole read once. */
export function WayBack({ view }: { view: RepairView }) {
  const done = view.way_back.filter((row) => row.is_done).length;
  const { hash } = useLocation();
  const isAll = done === view.way_back.length;
  return (
    <Card id="back" aria-label={words.title}>
      <div className="head strip-head">
        <h2>{words.title}</h2>
        <span className="quiet">{words.count(done, view.way_back.length)}</span>
      </div>
      {view.job.safety !== "dead" && !isAll && (
        <p className="notice">
          {words.notDead} <Link to={`/jobs/${view.job.id}/safe`}>{words.toSafe}</Link>
        </p>
      )}
      <ol className="way-back">
        {view.way_back.map((row) => (
          <BackRow key={row.step || row.panel || row.test} row={row} view={view} />
        ))}
      </ol>
      {isAll && <p>{words.all}</p>}
      <details id="strip" open={hash === "#strip" || undefined}>
        <summary>{strip.other}</summary>
        <StripForm view={view} />
      </details>
    </Card>
  );
}

/** One row: a tick for what goes back whole, a link to the line for what is read; what differs is told below it. */
function BackRow({ row, view }: { row: Row; view: RepairView }) {
  const record = useEvent(view.job.id);
  const step = view.strip.steps.find((each) => each.id === row.step);
  const put = () => {
    if (step)
      record.mutate({
        kind: "strip_back",
        step: step.id,
        fasteners: step.count,
        plugs: step.plugs.map((plug) => plug.id),
      });
    else if (row.panel) record.mutate({ kind: "shut", panel: row.panel });
  };
  const isRead = row.kind !== "refit";
  return (
    <li
      className={row.is_next ? "is-due" : row.is_done ? "is-done" : ""}
      aria-current={row.is_next ? "step" : undefined}
    >
      {isRead ? (
        <span className={row.is_done ? "way-back-mark done" : "way-back-mark"} aria-hidden>
          {row.is_done && <IconCheck size={22} stroke={3} />}
        </span>
      ) : (
        <button
          type="button"
          className="plan-tick"
          aria-pressed={row.is_done}
          aria-label={row.words}
          disabled={row.is_done || record.isPending}
          onClick={put}
        >
          {row.is_done && <IconCheck size={22} stroke={3} aria-hidden />}
        </button>
      )}
      <span className="plan-words">
        <b>{row.words}</b>
        {row.detail && <span className="quiet">{row.detail}</span>}
      </span>
      {step && step.photos.length > 0 && (
        <span className="row wrap way-back-more">
          {step.photos.map((photo) => (
            <a key={photo.id} href={photo.address} target="_blank" rel="noreferrer" className="strip-photo">
              <img src={photo.small} alt={strip.photoOf(step.words)} loading="lazy" />
            </a>
          ))}
        </span>
      )}
      {isRead && !row.is_done && (
        <Act
          as={Link}
          look={row.is_next ? "main" : "plain"}
          to={`/jobs/${view.job.id}/trace#${row.test}`}
          state={AS_NEXT}
        >
          {words.measure}
        </Act>
      )}
      {step && !row.is_done && (step.count > 0 || step.plugs.length > 0) && (
        <details className="way-back-more">
          <summary>{words.differs}</summary>
          <ol className="strip">
            <StripRow row={step} view={view} isTurned />
          </ol>
        </details>
      )}
      <EventProblem event={record} />
    </li>
  );
}
