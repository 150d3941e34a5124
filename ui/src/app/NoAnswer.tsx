import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import { frame } from "../words/frame";
import { Act } from "./controls/Act";
import { keepLastJob } from "./lastJob";

/** So often a page without an answer asks again by itself. */
const AGAIN_MS = 4_000;

/** Why there is nothing to show yet: it asks again by itself, and at once when it is told to. */
export function NoAnswer({ error }: { error: Error | null }) {
  const queries = useQueryClient();
  const isWaiting = error !== null;
  useEffect(() => {
    if (!isWaiting) return;
    const timer = setInterval(() => void queries.refetchQueries({ type: "active" }), AGAIN_MS);
    return () => clearInterval(timer);
  }, [isWaiting, queries]);
  if (!error) return <p className="page quiet">{frame.loading}</p>;
  return (
    <div className="page stack">
      <p className="problem" role="alert">
        {error.message}
      </p>
      <div className="row">
        <Act onClick={() => void queries.refetchQueries({ type: "active" })}>{frame.again}</Act>
        <Act as={Link} look="plain" to="/jobs" onClick={() => keepLastJob(null)}>
          {frame.toJobs}
        </Act>
      </div>
    </div>
  );
}
