import { useDocumentTitle } from "@mantine/hooks";
import { type ReactNode, useEffect } from "react";
import { Link } from "react-router";
import type { Job } from "../api/client";
import { frame } from "../words/frame";
import { keepLastJob } from "./lastJob";
import { NextBar } from "./NextBar";
import { TopStrip } from "./TopStrip";

type Props = {
  title: string;
  job: Job | undefined;
  error: Error | null;
  children: ReactNode;
};

/** A room of one job: the strip on top, the room below, or why there is none. */
export function JobRoom({ title, job, error, children }: Props) {
  useDocumentTitle(job ? `${title} · ${job.machine} · Ohmcensus` : "Ohmcensus");
  const jobId = job?.id;
  useEffect(() => {
    if (jobId) keepLastJob(jobId);
  }, [jobId]);
  if (!job) {
    return (
      <div className="page stack">
        {error ? <p className="problem">{error.message}</p> : <p className="quiet">{frame.loading}</p>}
        {error && (
          <Link to="/jobs" className="act" onClick={() => keepLastJob(null)}>
            {frame.toJobs}
          </Link>
        )}
      </div>
    );
  }
  return (
    <div className="job-room">
      <TopStrip job={job} />
      <div className="job-room-body">
        {children}
        <NextBar jobId={job.id} />
      </div>
    </div>
  );
}
