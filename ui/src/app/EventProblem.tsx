import type { EventBody } from "../api/client";
import type { EventWrite } from "../api/events";
import { Problem } from "./Problem";
import { WaysOn, waysOf } from "./WaysOn";

type Props = { event: EventWrite; text?: string };

/** Why an event was not taken, and the ways on as buttons. */
export function EventProblem({ event, text = "" }: Props) {
  const again = (more: Record<string, unknown>) => event.mutate({ ...event.variables, ...more } as EventBody);
  return (
    <>
      <Problem error={event.error} text={text} />
      {!text && <WaysOn jobId={event.jobId} acts={waysOf(event.error)} again={again} />}
    </>
  );
}
