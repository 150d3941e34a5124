import { IconCheck } from "@tabler/icons-react";
import { useState } from "react";
import { useEvent } from "../../api/events";
import type { Plan, RepairView } from "../../api/repair";
import { Act } from "../../app/controls/Act";
import { Field } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { PhotoPick } from "../../app/PhotoPick";
import { useForm } from "../../app/useForm";
import { strip as words } from "../../words/repair";

type Step = Plan["steps"][number];
const HELD = ["fasteners", "head", "size", "kept"] as const;
type Held = Record<(typeof HELD)[number], string>;

/** What comes off on the way to the part: one touch each, fasteners as an earlier job had them, what differs typed. */
export function PlanSteps({ view }: { view: RepairView }) {
  const next = view.plan.steps.find((row) => row.state === "to_do");
  return (
    <>
      <ol className="plan">
        {view.plan.steps.map((row) => (
          <PlanStep key={`${view.plan.part} ${row.id}`} view={view} row={row} isNext={row === next} />
        ))}
      </ol>
      {view.plan.cautions.map((row) => (
        <p key={row} className="notice">
          {row}
        </p>
      ))}
    </>
  );
}

type PlanStepProps = { view: RepairView; row: Step; isNext: boolean };

function PlanStep({ view, row, isNext }: PlanStepProps) {
  const record = useEvent(view.job.id);
  const [isEditing, setIsEditing] = useState(false);
  const proposed = heldOf(row);
  const [held, setHeld, forget] = useForm(`ohmcensus.plan.${view.job.id}.${row.id}`, proposed);
  const [problem, setProblem] = useState("");
  const written = view.strip.steps.find((step) => step.id === row.step);
  const photos = written?.photos ?? [];
  const isOff = row.state !== "to_do";
  const tick = () => {
    const fasteners = held.fasteners.trim() === "" ? 0 : Number(held.fasteners);
    if (!Number.isInteger(fasteners)) return setProblem(words.badCount);
    setProblem("");
    const { minutes: _, ...proposal } = row.proposal;
    record.mutate(
      { ...proposal, ...held, fasteners, kind: "strip_step" },
      {
        onSuccess: () => {
          forget();
          setIsEditing(false);
        },
      },
    );
  };
  return (
    <li className={isNext ? "is-due" : ""} aria-current={isNext ? "step" : undefined}>
      <button
        type="button"
        className="plan-tick"
        aria-pressed={isOff}
        aria-label={isOff ? `${row.proposal.words}: ${words.states[row.state]}` : row.proposal.words}
        disabled={isOff || record.isPending}
        onClick={tick}
      >
        {isOff && <IconCheck size={22} stroke={3} aria-hidden />}
      </button>
      <span className="plan-words">
        <b>{row.proposal.words}</b>
        <span className="quiet">
          {[
            written ? written.fasteners : heldWords(held),
            isOff && row.state !== "off" ? words.states[row.state] : "",
          ]
            .filter(Boolean)
            .join(" · ")}
        </span>
      </span>
      <span className="mono quiet">{row.minutes}</span>
      <span className="row plan-acts">
        {row.before && photos.length === 0 && (
          <a href={row.before.address} target="_blank" rel="noreferrer" className="strip-photo is-earlier">
            <img src={row.before.small} alt={words.earlierPhoto(row.proposal.words)} loading="lazy" />
            <span className="quiet">{words.earlier}</span>
          </a>
        )}
        {photos.map((photo) => (
          <a key={photo.id} href={photo.address} target="_blank" rel="noreferrer" className="strip-photo">
            <img src={photo.small} alt={words.photoOf(row.proposal.words)} loading="lazy" />
          </a>
        ))}
        {row.step && <PhotoPick jobId={view.job.id} of="step" event={row.step} label={words.photoShort} />}
        {!isOff && (
          <Act
            look="bare"
            aria-label={words.editOf(row.proposal.words)}
            onClick={() => setIsEditing(!isEditing)}
          >
            {words.edit}
          </Act>
        )}
      </span>
      {isEditing && !isOff && (
        <div className="worth-fields plan-edit">
          {HELD.map((name) => (
            <Field
              key={name}
              label={words[name]}
              placeholder={words.hints[name]}
              value={held[name]}
              onChange={(typed) => setHeld({ ...held, [name]: typed })}
            />
          ))}
          <Act onClick={tick}>{words.tickOff}</Act>
        </div>
      )}
      <EventProblem event={record} text={problem} />
    </li>
  );
}

function heldOf({ proposal }: Step): Held {
  return {
    fasteners: proposal.fasteners ? String(proposal.fasteners) : "",
    head: proposal.head ?? "",
    size: proposal.size ?? "",
    kept: proposal.kept ?? "",
  };
}

/** What held it, in print: "6 × cross M4 x 12, blue lid". */
function heldWords({ fasteners, head, size, kept }: Held): string {
  const held = [fasteners && `${fasteners} ×`, head, size].filter(Boolean).join(" ");
  return [held, kept].filter(Boolean).join(", ");
}
