import type { Preview } from "../../api/client";
import { verdictColour } from "../../drawings/VerdictMark";
import { quick } from "../../words/trace";

type Props = {
  text: string;
  preview: Preview | null;
  problem: string;
  said: string;
  isSaving: boolean;
  onOffer: (offer: string) => void;
};

/** What the quick line answers: understood as, what is wrong with it, or what was just logged. */
export function Answer({ text, preview, problem, said, isSaving, onOffer }: Props) {
  return (
    <div className="answer" role="status">
      {isSaving ? (
        quick.saving
      ) : problem ? (
        <span className="problem">{problem}</span>
      ) : text.trim() ? (
        <Understood preview={preview} onOffer={onOffer} />
      ) : (
        <span>{said}</span>
      )}
    </div>
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
