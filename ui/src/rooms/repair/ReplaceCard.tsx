import { useState } from "react";
import type { EventBody } from "../../api/client";
import { useEvent } from "../../api/events";
import type { RepairView } from "../../api/repair";
import { type Piece, usePieces } from "../../api/shelf";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Chip } from "../../app/controls/Chip";
import { Field } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { useForm } from "../../app/useForm";
import { replace as words } from "../../words/repair";

const EMPTY = { piece: "", how: "" };
type Props = { view: RepairView; sawFail: boolean | null; onSawFail: (saw: boolean) => void };

/** What is done to the part: a piece of the shelf that fits, or one to be ordered; asked first, whether it was seen to fail. */
export function ReplaceCard({ view, sawFail, onSawFail }: Props) {
  const { plan } = view;
  const { data } = usePieces(view.job.id, plan.part);
  const record = useEvent(view.job.id);
  const [isAsked, setIsAsked] = useState(false);
  const fits = plan.fits.map((row) => row.id);
  const [chosen, setChosen] = useState(fits.length === 1 ? (fits[0] ?? "") : "");
  const [typed, setTyped, forget] = useForm(`ohmcensus.done.${view.job.id}.${plan.part}`, EMPTY);
  const [problem, setProblem] = useState("");
  const isAnswered = !view.asks_saw_fail || sawFail !== null;
  const save = () => {
    if (!chosen) return setProblem(words.askDone);
    if (!isAnswered) return setIsAsked(true);
    if (chosen === "mended" && !typed.how.trim()) return setProblem(words.askHow);
    setProblem("");
    const told = chosen === "replaced" ? { fitted: typed.piece.trim() } : { words: typed.how.trim() };
    const body = {
      kind: "changed",
      part: plan.part,
      intervention: chosen,
      ...told,
      saw_fail: sawFail ?? false,
    };
    record.mutate(body as EventBody, { onSuccess: () => forget() });
  };
  const fitPiece = (piece: Piece) => {
    if (view.asks_saw_fail && sawFail === null) return setIsAsked(true);
    record.mutate({
      kind: "changed",
      part: plan.part,
      intervention: "replaced",
      spare: piece.spare.id,
      saw_fail: sawFail ?? false,
    });
  };
  const pieces = data?.pieces ?? [];
  return (
    <Card isStack className="replace" aria-label={words.title}>
      <div className="head">
        <h2>{words.doIt(plan.title)}</h2>
        <span className="quiet">{plan.minutes}</span>
      </div>
      <p className="big">{plan.repair}</p>
      {view.asks_saw_fail && (
        <fieldset className="plain-set">
          <legend>{words.sawFail}</legend>
          <div className="chips">
            <Chip isOn={sawFail === true} onClick={() => onSawFail(true)}>
              {words.yes}
            </Chip>
            <Chip isOn={sawFail === false} onClick={() => onSawFail(false)}>
              {words.no}
            </Chip>
          </div>
          <p className="quiet">{words.sawFailHelp}</p>
        </fieldset>
      )}
      {plan.fits.length > 1 && (
        <fieldset className="plain-set">
          <legend>{words.done}</legend>
          <div className="chips">
            {plan.fits.map((row) => (
              <Chip key={row.id} isOn={chosen === row.id} onClick={() => setChosen(row.id)}>
                {words.acts[row.id] ?? row.words}
              </Chip>
            ))}
          </div>
        </fieldset>
      )}
      {chosen === "replaced" && (
        <Field
          label={words.piece}
          placeholder={words.pieceHint}
          value={typed.piece}
          maxLength={80}
          onChange={(piece) => setTyped({ ...typed, piece })}
        />
      )}
      {chosen === "mended" && (
        <Field
          label={words.how}
          placeholder={words.howHint}
          value={typed.how}
          maxLength={300}
          onChange={(how) => setTyped({ ...typed, how })}
        />
      )}
      <Act disabled={record.isPending} onClick={save}>
        {chosen ? `${words.acts[chosen] ?? words.save}: ${plan.title}` : words.save}
      </Act>
      {pieces.length === 0 && <p className="quiet">{words.none}</p>}
      {pieces.map((piece) => (
        <div key={piece.spare.id} className="replace-piece">
          <p>
            {words.shelf} <b>{piece.spare.mark}</b>, {piece.spare.where}: {piece.spare.soundness_words}.{" "}
            {piece.misfits.length === 0 && <b className="fits">{words.fits}</b>}
          </p>
          {piece.misfits.map((said) => (
            <p key={said} className="notice">
              {said}
            </p>
          ))}
          {piece.spare.soundness !== "bad" && (
            <Act
              look={piece.misfits.length === 0 ? "main" : "plain"}
              disabled={record.isPending}
              onClick={() => fitPiece(piece)}
            >
              {words.fit(piece.spare.mark)}
            </Act>
          )}
        </div>
      ))}
      <EventProblem event={record} text={problem || (isAsked && sawFail === null ? words.askFirst : "")} />
    </Card>
  );
}
