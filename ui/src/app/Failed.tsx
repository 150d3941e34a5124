import { useRouteError } from "react-router";
import { frame } from "../words/frame";
import { Act } from "./controls/Act";
import { Card } from "./controls/Card";

/** A room that broke: what is stored and what was typed are safe, and the page can be drawn again. */
export function Failed() {
  const error = useRouteError();
  return (
    <div className="page">
      <Card isStack role="alert">
        <h1>{frame.failed}</h1>
        <p>{frame.failedHelp}</p>
        <p className="quiet">{error instanceof Error ? error.message : String(error)}</p>
        <div className="row">
          <Act onClick={() => globalThis.location.reload()}>{frame.again}</Act>
          <Act as="a" look="plain" href="/jobs">
            {frame.toJobs}
          </Act>
        </div>
      </Card>
    </div>
  );
}
