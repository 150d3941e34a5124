import { NativeSelect } from "@mantine/core";
import { useState } from "react";
import { Link, useLocation } from "react-router";
import { useEvent } from "../../api/events";
import type { RepairView } from "../../api/repair";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Field } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { usePad } from "../../app/Keypad";
import { PhotoPick } from "../../app/PhotoPick";
import { strip as words } from "../../words/repair";
import { PlanSteps } from "./PlanSteps";
import { PlugChips } from "./PlugChips";
import { StripForm } from "./StripForm";

type Row = RepairView["strip"]["steps"][number];

/** Whether a planned step says all that was written: one typed by hand may be several at once, and is shown as it is. */
const isAllOf = (step: RepairView["plan"]["steps"][number], row: Row) =>
  step.step === row.id && step.proposal.words.toLowerCase() === row.words.toLowerCase();

type Props = { view: RepairView; onPart: (part: string) => void };

/** The way to the part that is mended, ticked as it comes off; one touch turns it round into the reassembly. */
export function StripCard({ view, onPart }: Props) {
  const { hash } = useLocation();
  const [isTurned, setIsTurned] = useState(hash === "#back" && view.strip.steps.length > 0);
  const { plan, strip } = view;
  const others = strip.steps.filter((row) => !plan.steps.some((step) => isAllOf(step, row)));
  const whole = strip.steps.filter((row) => row.state === "whole").length;
  return (
    <Card id="back" aria-label={words.title}>
      <div className="head strip-head">
        <h2>{isTurned ? words.wayBack : words.takeOut(plan.title)}</h2>
        <span className="quiet">
          {strip.steps.length > 0
            ? words.count(whole, strip.steps.length)
            : words.needs(plan.minutes, plan.repair)}
          {strip.spent && ` · ${words.took(strip.spent)}`}
        </span>
      </div>
      {!isTurned && !view.is_over && (
        <div className="row">
          <p className="quiet grow">{words.planHelp(plan.told)}</p>
          <NativeSelect
            aria-label={words.otherPart}
            value={plan.part}
            data={view.parts.map((row) => ({ value: row.id, label: row.words }))}
            onChange={(event) => onPart(event.currentTarget.value)}
          />
        </div>
      )}
      {!view.is_over && view.job.safety !== "dead" && (
        <p className="notice">
          {words.notDead} <Link to={`/jobs/${view.job.id}/safe`}>{words.toSafe}</Link>
        </p>
      )}
      {!isTurned && !view.is_over && <PlanSteps view={view} />}
      {(isTurned || view.is_over || others.length > 0) && (
        <ol className="strip">
          {(isTurned ? [...strip.steps].reverse() : view.is_over ? strip.steps : others).map((row) => (
            <StripRow key={row.id} row={row} view={view} isTurned={isTurned} />
          ))}
        </ol>
      )}
      {strip.steps.length === 0 && (isTurned || view.is_over) && <p className="quiet">{words.none}</p>}
      {!view.is_over && (
        <div className="row strip-foot">
          {!isTurned && (
            <details id="strip" open={hash === "#strip" || undefined}>
              <summary>{words.other}</summary>
              <StripForm view={view} />
            </details>
          )}
          {strip.steps.length > 0 && (
            <Act look={isTurned ? "plain" : "main"} onClick={() => setIsTurned(!isTurned)}>
              {isTurned ? words.wayOut : words.turn}
            </Act>
          )}
        </div>
      )}
    </Card>
  );
}

type RowProps = { row: Row; view: RepairView; isTurned: boolean };

/** One step; turned round it asks for every fastener and plug. */
export function StripRow({ row, view, isTurned }: RowProps) {
  const record = useEvent(view.job.id);
  const pad = usePad();
  const [count, setCount] = useState(String(row.count));
  const [because, setBecause] = useState("");
  const [plugs, setPlugs] = useState(row.plugs.map((plug) => plug.id));
  const number = Number(count);
  const isShort = number < row.count;
  const back = () =>
    record.mutate({
      kind: "strip_back",
      step: row.id,
      fasteners: Number.isInteger(number) ? number : 0,
      plugs,
      ...(isShort && because.trim() ? { because } : {}),
    });
  return (
    <li className={`strip-${row.state}`}>
      <div className="strip-line">
        <b>{row.words}</b>
        <span>{words.states[row.state]}</span>
      </div>
      {(row.fasteners || row.minutes) && (
        <span className="quiet">{[row.fasteners, row.minutes].filter(Boolean).join(" · ")}</span>
      )}
      {row.plugs.length > 0 && (
        <span className="quiet">
          {words.plugs}: {row.plugs.map((plug) => plug.words).join(", ")}
        </span>
      )}
      {row.state === "partly" && (
        <span className="notice">
          {words.missing}: {row.missing}
        </span>
      )}
      <div className="row wrap">
        {row.photos.map((photo) => (
          <a key={photo.id} href={photo.address} target="_blank" rel="noreferrer" className="strip-photo">
            <img src={isTurned ? photo.address : photo.small} alt={words.photoOf(row.words)} loading="lazy" />
          </a>
        ))}
        {!view.is_over && !isTurned && (
          <PhotoPick jobId={view.job.id} of="step" event={row.id} label={words.photo} />
        )}
      </div>
      {isTurned && !view.is_over && row.state !== "whole" && (
        <div className="row strip-back">
          {row.count > 0 && (
            <label>
              {words.backCount(row.count)}{" "}
              <input
                className="mono figure-field count"
                {...pad}
                value={count}
                onChange={(event) => setCount(event.currentTarget.value)}
              />
            </label>
          )}
          {isShort && row.holds_earth && <p className="notice">{words.allBack}</p>}
          {isShort && !row.holds_earth && (
            <Field
              className="grow"
              aria-label={words.leftOut}
              placeholder={words.leftOut}
              value={because}
              maxLength={300}
              onChange={(typed) => setBecause(typed)}
            />
          )}
          <PlugChips
            plugs={row.plugs}
            chosen={plugs}
            say={(plug, isOn) => words.plugIs(plug.words, isOn)}
            onChoose={setPlugs}
          />
          <Act aria-label={`${words.back}: ${row.words}`} disabled={record.isPending} onClick={back}>
            {words.back}
          </Act>
        </div>
      )}
      <EventProblem event={record} />
    </li>
  );
}
