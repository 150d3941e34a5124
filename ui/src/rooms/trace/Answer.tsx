import type { ReactNode } from "react";
import type { Line, Preview } from "../../api/client";
import { Act } from "../../app/controls/Act";
import { verdictColour } from "../../drawings/VerdictMark";
import { quick } from "../../words/trace";

type Props = {
  text: string;
  preview: Preview | null;
  problem: string;
  said: string;
  /** The line in question, told while nothing is typed. */
  line: Line | null;
  isSaving: boolean;
  /** Takes back what was just logged; null where nothing was. */
  onUndo: (() => void) | null;
  onOffer: (offer: string) => void;
  refused: ReactNode;
};

/** What the quick line answers: understood as, what is wrong with it, or what was just logged. */
export function Answer(props: Props) {
  const { text, preview, problem, said, line, isSaving, onUndo, onOffer, refused } = props;
  return (
    <div className="answer" role="status">
      {isSaving ? (
        quick.saving
      ) : problem ? (
        <>
          <span className="problem">{problem}</span>
          {refused}
        </>
      ) : text.trim() ? (
        <>
          <Understood preview={preview} onOffer={onOffer} />
          {refused}
        </>
      ) : (
        <>
          {said && (
            <>
              {onUndo && (
                <Act look="plain" className="undo" onClick={onUndo}>
                  {quick.undo}
                </Act>
              )}
              <span className="just-said">{said}</span>
            </>
          )}
          {line && <InQuestion line={line} isAfter={said !== ""} />}
        </>
      )}
    </div>
  );
}

/** What the next figure is of. */
function InQuestion({ line, isAfter }: { line: Line; isAfter: boolean }) {
  return (
    <span className="in-question" data-key={line.key}>
      {isAfter && `${quick.after} `}
      {line.part_title || quick.points}, <b>{line.title}</b> <span className="mono quiet">{line.should}</span>
    </span>
  );
}

function Understood({ preview, onOffer }: { preview: Preview | null; onOffer: (offer: string) => void }) {
  if (!preview) return null;
  const offers = preview.completions ?? [];
  if (preview.verdict) {
    return (
      <>
        <b>{preview.heading}</b> · <b className="mono">{preview.reads}</b>{" "}
        <span className="mono quiet">{preview.error_text}</span>{" "}
        <span className="quiet with">{preview.meter}</span>
        <br />
        <span style={{ color: verdictColour(preview.verdict), fontWeight: 650 }}>{preview.sentence}</span>
      </>
    );
  }
  return (
    <>
      {preview.heading && <b>{preview.heading} </b>}
      {offers.length > 0 ? (
        <span className="offers">
          {offers.map((offer) => (
            <button type="button" key={offer} onClick={() => onOffer(offer)}>
              {offer}
            </button>
          ))}
        </span>
      ) : (
        <span className="problem">{preview.problem}</span>
      )}
    </>
  );
}
