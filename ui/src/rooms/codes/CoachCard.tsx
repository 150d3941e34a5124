import type { Sequence } from "../../api/client";
import { useEvent } from "../../api/events";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { EventProblem } from "../../app/EventProblem";
import { codes as codeWords, coach as words } from "../../words/codes";
import { Beat } from "./Beat";
import { useAttempt } from "./useAttempt";
import { useSettle } from "./useSettle";

type Props = { jobId: string; sequence: Sequence; isUnread: boolean };

/** Beats the rhythm of an entry sequence, follows the clicks, and says faster or slower. */
export function CoachCard({ jobId, sequence, isUnread }: Props) {
  const attempt = useAttempt(jobId, sequence.id);
  const settle = useSettle(sequence.settle_s);
  const event = useEvent(jobId);
  const say = (isIn: boolean) => {
    event.mutate({ kind: "entry_tried", sequence: sequence.id, is_in: isIn });
    attempt.reset();
  };
  return (
    <Card isStack aria-label={sequence.title}>
      <div className="head">
        <h2>{words.title}</h2>
        <span className="quiet">
          {words.attempt(attempt.number)} · {words.tried(sequence.tried)}
        </span>
      </div>
      <p style={{ margin: 0 }}>
        <b>{sequence.title}.</b> {sequence.before}
      </p>
      {settle.left > 0 ? (
        <div className="row">
          <b role="timer">{words.settling(settle.left)}</b>
          <Act look="plain" onClick={settle.skip}>
            {words.settled}
          </Act>
        </div>
      ) : (
        <>
          <Beat sequence={sequence} attempt={attempt} />
          <p
            className={attempt.state?.is_over && attempt.state.hint !== "done" ? "problem hint" : "hint"}
            role="status"
          >
            {attempt.problem || attempt.state?.sentence}
          </p>
          {attempt.state?.hint === "done" && (
            <div className="row">
              <b>{words.didIt}</b>
              <Act onClick={() => say(true)}>{words.yes}</Act>
              <Act look="plain" onClick={() => say(false)}>
                {words.no}
              </Act>
            </div>
          )}
          <div className="row">
            {attempt.state?.is_over && <Act onClick={attempt.reset}>{words.again}</Act>}
            <Act look="plain" onClick={settle.start}>
              {words.settle}
            </Act>
          </div>
        </>
      )}
      <EventProblem event={event} />
      {sequence.tried > 0 && !sequence.is_in && <p className="quiet none">{words.slowerTip}</p>}
      {sequence.is_in && (
        <p className="nudge-inline" role="note">
          <b>{words.isIn}</b> {isUnread && codeWords.writeFirst}{" "}
          {sequence.times_out_min && words.endsBy(sequence.times_out_min)}
        </p>
      )}
      <p className="quiet none">
        {words.leave}: {sequence.leave}
      </p>
    </Card>
  );
}
