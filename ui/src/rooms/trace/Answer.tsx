import { useState } from "react";
import { Link } from "react-router";
import type { Preview } from "../../api/client";
import { verdictColour } from "../../drawings/VerdictMark";
import { quick } from "../../words/trace";

/** Characters of a reason, as the core asks for. */
const SHORTEST_REASON = 10;

type Props = {
  jobId: string;
  text: string;
  preview: Preview | null;
  problem: string;
  said: string;
  isSaving: boolean;
  onOffer: (offer: string) => void;
  onOverride: (reason: string) => void;
};

/** What the quick line answers: understood as, what is wrong with it, or what was just logged. */
export function Answer(props: Props) {
  const { jobId, text, preview, problem, said, isSaving, onOffer, onOverride } = props;
  return (
    <div className="answer" role="status">
      {isSaving ? (
        quick.saving
      ) : problem ? (
        <>
          <span className="problem">{problem}</span>
          {preview?.may_override && <NotProved jobId={jobId} onOverride={onOverride} />}
        </>
      ) : text.trim() ? (
        <>
          <Understood preview={preview} onOffer={onOffer} />
          {preview?.may_override && <NotProved jobId={jobId} onOverride={onOverride} />}
        </>
      ) : (
        <span>{said}</span>
      )}
    </div>
  );
}

/** Only the proof of dead is missing: the way to it, and the way around it with a reason. */
function NotProved({ jobId, onOverride }: { jobId: string; onOverride: (reason: string) => void }) {
  const [reason, setReason] = useState<string | null>(null);
  if (reason === null) {
    return (
      <span className="offers not-proved">
        <Link to={`/jobs/${jobId}/safe`}>{quick.proveDead}</Link>
        <button type="button" onClick={() => setReason("")}>
          {quick.override}
        </button>
      </span>
    );
  }
  return (
    <span className="offers not-proved">
      <input
        type="text"
        aria-label={quick.overrideReason}
        placeholder={quick.overrideReason}
        value={reason}
        maxLength={300}
        // biome-ignore lint/a11y/noAutofocus: it was asked for by the button in its place
        autoFocus
        onChange={(event) => setReason(event.currentTarget.value)}
        onKeyDown={(event) => {
          if (event.key !== "Enter") return;
          event.preventDefault();
          if (reason.trim().length >= SHORTEST_REASON) onOverride(reason);
        }}
      />
      <button
        type="button"
        disabled={reason.trim().length < SHORTEST_REASON}
        onClick={() => onOverride(reason)}
      >
        {quick.overrideDo}
      </button>
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
