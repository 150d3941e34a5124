import { type ReactNode, useState } from "react";
import { Link } from "react-router";
import { ApiError, type EventBody, type WayOn } from "../api/client";
import { useEvent } from "../api/events";
import { ways as words } from "../words/ways";
import { Act } from "./controls/Act";
import { Problem } from "./Problem";
import "./ways.css";

/** The ways on that an error carries: only a refusal of the server has any. */
export function waysOf(error: Error | null | undefined): WayOn[] {
  return error instanceof ApiError ? (error.problem?.acts ?? []) : [];
}

type Props = {
  jobId: string;
  acts: WayOn[];
  /** Sends what was refused once more, with some fields in it. */
  again: (more: Record<string, unknown>) => void;
};

/** What may be done where a rule refuses: going there, stating it, or the same once more with a word in it. */
export function WaysOn({ jobId, acts, again }: Props) {
  const [asked, setAsked] = useState<WayOn | null>(null);
  const event = useEvent(jobId);
  if (acts.length === 0) return null;
  if (asked) {
    return (
      <Asked
        act={asked}
        onSay={(said) => {
          setAsked(null);
          again({ ...asked.with, [asked.asks ?? ""]: said });
        }}
        onCancel={() => setAsked(null)}
      />
    );
  }
  const press = (act: WayOn) => {
    if (act.how === "again") return act.asks ? setAsked(act) : again(act.with ?? {});
    event.mutate(act.event as EventBody, { onSuccess: () => act.then === "again" && again({}) });
  };
  return (
    <div className="ways-on">
      {acts.map((act, place) => (
        <Way key={act.id + act.label} jobId={jobId} act={act} isFirst={place === 0} onPress={press}>
          {act.label}
        </Way>
      ))}
      <Problem error={event.error} />
    </div>
  );
}

type WayProps = {
  jobId: string;
  act: WayOn;
  isFirst: boolean;
  onPress: (act: WayOn) => void;
  children: ReactNode;
};

function Way({ jobId, act, isFirst, onPress, children }: WayProps) {
  const look = act.id === "label_unsafe" ? "danger" : isFirst ? "main" : "plain";
  if (act.how !== "go" || !act.where) {
    return (
      <Act look={look} onClick={() => onPress(act)}>
        {children}
      </Act>
    );
  }
  const { room, at } = act.where;
  return (
    <Act as={Link} look={look} to={`/jobs/${jobId}/${room}${at ? `#${at}` : ""}`}>
      {children}
    </Act>
  );
}

type AskedProps = { act: WayOn; onSay: (said: string) => void; onCancel: () => void };

/** A word that has to be said with it: why it is safe. */
function Asked({ act, onSay, onCancel }: AskedProps) {
  const [said, setSaid] = useState("");
  const isSaid = said.trim() !== "";
  return (
    <div className="ways-on">
      <input
        type="text"
        aria-label={words.why}
        placeholder={words.why}
        value={said}
        maxLength={300}
        // biome-ignore lint/a11y/noAutofocus: it was asked for by the button in its place
        autoFocus
        onChange={(event) => setSaid(event.currentTarget.value)}
        onKeyDown={(event) => {
          if (event.key !== "Enter") return;
          event.preventDefault();
          if (isSaid) onSay(said);
        }}
      />
      <Act disabled={!isSaid} onClick={() => onSay(said)}>
        {act.label}
      </Act>
      <Act look="bare" onClick={onCancel}>
        {words.cancel}
      </Act>
    </div>
  );
}
