import { useState } from "react";
import { useEvent } from "../../api/events";
import type { RepairView } from "../../api/repair";
import { type Piece, usePieces } from "../../api/shelf";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Chip } from "../../app/controls/Chip";
import { EventProblem } from "../../app/EventProblem";
import { replace as words } from "../../words/repair";

type Props = { view: RepairView; sawFail: boolean | null; onSawFail: (saw: boolean) => void };

/** What is done to the part: a piece of the shelf that fits, or one to be ordered; asked first, whether it was seen to fail. */
export function ReplaceCard({ view, sawFail, onSawFail }: Props) {
  const { plan } = view;
  const { data } = usePieces(view.job.id, plan.part);
  const record = useEvent(view.job.id);
  const [isAsked, setIsAsked] = useState(false);
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
      <EventProblem event={record} text={isAsked && sawFail === null ? words.askFirst : ""} />
    </Card>
  );
}
