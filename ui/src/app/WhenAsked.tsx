import { ApiError, type EventBody } from "../api/client";
import { when as words } from "../words/frame";
import { Act } from "./controls/Act";

type Props = {
  error: Error | null;
  /** What was refused because it was not said whether it was so now, or before the machine was cut off. */
  asked: EventBody | null;
  send: (body: EventBody) => void;
};

/** A machine that is cut off shows nothing now: was it before, or does it stand under voltage again? */
export function WhenAsked({ error, asked, send }: Props) {
  if (!asked || !(error instanceof ApiError) || error.problem?.field !== "was") return null;
  return (
    <div className="chips">
      {(["before", "now"] as const).map((was) => (
        <Act look="plain" key={was} onClick={() => send({ ...asked, was } as EventBody)}>
          {words[was]}
        </Act>
      ))}
    </div>
  );
}
