import { ApiError, type EventBody } from "../api/client";
import { when as words } from "../words/frame";

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
        <button
          key={was}
          type="button"
          className="plain bordered"
          onClick={() => send({ ...asked, was } as EventBody)}
        >
          {words[was]}
        </button>
      ))}
    </div>
  );
}
