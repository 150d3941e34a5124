import { useState } from "react";
import { Link } from "react-router";
import type { Preview } from "../../api/client";
import { useEvent } from "../../api/events";
import { Act } from "../../app/controls/Act";
import { quick } from "../../words/trace";

/** Characters of a reason, as the core asks for. */
const SHORTEST_REASON = 10;

type Props = {
  jobId: string;
  answers: NonNullable<Preview["answers"]>;
  onLoose: () => void;
  onOverride: (reason: string) => void;
  onDone: () => void;
};

/** What may be answered to a refusal for safety in this state; on a phone it stands where the keypad was. */
export function Refused({ jobId, answers, onLoose, onOverride, onDone }: Props) {
  const [isAsking, setIsAsking] = useState(false);
  const event = useEvent(jobId);
  if (isAsking) return <Reason onOverride={onOverride} onCancel={() => setIsAsking(false)} />;
  return (
    <div className="refused">
      {answers.includes("unplug") && (
        <Act
          look="danger"
          disabled={event.isPending}
          onClick={() => event.mutate({ kind: "isolated" }, { onSuccess: onDone })}
        >
          {quick.unplug}
        </Act>
      )}
      {answers.includes("prove") && (
        <Act as={Link} look="plain" to={`/jobs/${jobId}/safe`}>
          {quick.proveDead}
        </Act>
      )}
      {answers.includes("loose") && (
        <Act look="plain" onClick={onLoose}>
          {quick.inHand}
        </Act>
      )}
      {answers.includes("override") && (
        <Act look="plain" onClick={() => setIsAsking(true)}>
          {quick.override}
        </Act>
      )}
    </div>
  );
}

function Reason({ onOverride, onCancel }: { onOverride: (reason: string) => void; onCancel: () => void }) {
  const [reason, setReason] = useState("");
  const isLong = reason.trim().length >= SHORTEST_REASON;
  return (
    <div className="refused">
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
          if (isLong) onOverride(reason);
        }}
      />
      <Act disabled={!isLong} onClick={() => onOverride(reason)}>
        {quick.overrideDo}
      </Act>
      <Act look="bare" onClick={onCancel}>
        {quick.cancel}
      </Act>
    </div>
  );
}
