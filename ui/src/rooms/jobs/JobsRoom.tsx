import { TextInput } from "@mantine/core";
import { useDocumentTitle } from "@mantine/hooks";
import { useState } from "react";
import { Link } from "react-router";
import type { Job } from "../../api/client";
import { useJobs } from "../../api/hooks";
import { safetyDialog, safetyWords } from "../../words/frame";
import { jobs as words } from "../../words/jobs";
import { momentOf } from "../trace/times";
import "./jobs.css";
import { NewJobForm } from "./NewJobForm";

/** All jobs, the last changed one first. */
export function JobsRoom() {
  const { data: jobs, error } = useJobs();
  const [isOpening, setIsOpening] = useState(false);
  const [find, setFind] = useState("");
  useDocumentTitle("Jobs · Ohmcensus");
  const shown = (jobs ?? []).filter((job) => holds(job, find));
  const isEmpty = jobs?.length === 0;
  return (
    <div className="page">
      <div className="head">
        <h1>{words.title}</h1>
        {!isOpening && (
          <button type="button" className="act" onClick={() => setIsOpening(true)}>
            {words.new}
          </button>
        )}
      </div>
      {isOpening && <NewJobForm onClose={() => setIsOpening(false)} />}
      {error && <p className="problem">{error.message}</p>}
      {isEmpty && !isOpening && <p className="quiet">{words.none}</p>}
      {(jobs?.length ?? 0) > 3 && (
        <TextInput
          mt="md"
          size="md"
          aria-label={words.find}
          placeholder={`${words.find}: ${words.findHint}`}
          value={find}
          onChange={(event) => setFind(event.currentTarget.value)}
        />
      )}
      {jobs && !isEmpty && shown.length === 0 && <p className="quiet">{words.noMatch}</p>}
      <ul className="job-list">
        {shown.map((job) => (
          <li key={job.id}>
            <JobCard job={job} />
          </li>
        ))}
      </ul>
    </div>
  );
}

function JobCard({ job }: { job: Job }) {
  return (
    <Link to={`/jobs/${job.id}/trace`} className="card">
      <h2>
        {job.machine} <span className="quiet">· {job.place}</span>
      </h2>
      <p className={job.safety === "live" ? "said live" : "said"}>
        {safetyWords[job.safety]}
        {job.safety === "dead" && `, ${safetyDialog.proved} ${momentOf(job.safety_at, Date.now())}`}
      </p>
      <p>{job.complaint || job.sheet_title}</p>
      <p className="count">
        {job.asked === 0 ? words.notStarted : words.asked(job.asked, job.lines)}
        {job.asked > 0 && (
          <>
            {" · "}
            <span className={job.outside > 0 ? "has-outside" : ""}>{words.outside(job.outside)}</span>
          </>
        )}
      </p>
      <p className="quiet">
        {job.sheet} · {job.supply} · {job.watts} W{job.serial && ` · ${job.serial}`}
      </p>
      <p className="quiet count">
        {words.changed} {momentOf(job.changed_at, Date.now())}
      </p>
    </Link>
  );
}

function holds(job: Job, find: string): boolean {
  const text = `${job.machine} ${job.place} ${job.complaint} ${job.serial} ${job.sheet}`.toLowerCase();
  return find
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}
