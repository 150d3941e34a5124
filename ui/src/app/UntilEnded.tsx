import type { ReactNode } from "react";
import type { Job } from "../api/client";

/** What is written until the job has ended: from then on it can be read, and takes nothing. */
export function UntilEnded({ job, children }: { job: Job; children: ReactNode }) {
  return (
    <fieldset className="until-ended" disabled={job.ended !== null}>
      {children}
    </fieldset>
  );
}
