import type { ReactNode } from "react";
import type { Job } from "../api/client";

/** What is written only while the job goes on: once that has ended it can be read, and takes nothing. */
export function WhileOpen({ job, children }: { job: Job; children: ReactNode }) {
  return (
    <fieldset className="while-open" disabled={job.ended !== null}>
      {children}
    </fieldset>
  );
}
