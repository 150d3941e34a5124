import { useDocumentTitle } from "@mantine/hooks";
import { type ReactNode, useEffect } from "react";
import type { Job } from "../api/client";
import { keepLastJob } from "./lastJob";
import { NextBar } from "./NextBar";
import { NoAnswer } from "./NoAnswer";
import { TopStrip } from "./TopStrip";
import { UndoLast } from "./UndoLast";
import { useUnderHand } from "./underHand";
import { usePlace } from "./usePlace";

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
  useUnderHand(jobId !== undefined);
  usePlace(jobId !== undefined);
  if (!job) return <NoAnswer error={error} />;
  return (
    <div className="job-room">
      <TopStrip job={job} />
      <div className="job-room-body">
        {children}
        <UndoLast jobId={job.id} />
        <NextBar jobId={job.id} isOver={job.ended !== null} />
      </div>
    </div>
  );
}
