import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import { frame } from "../words/frame";
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
        <button type="button" className="act" onClick={() => void queries.refetchQueries({ type: "active" })}>
          {frame.again}
        </button>
        <Link to="/jobs" className="plain bordered" onClick={() => keepLastJob(null)}>
          {frame.toJobs}
        </Link>
      </div>
    </div>
  );
}
