import { TextInput } from "@mantine/core";
import { useDebouncedValue, useDocumentTitle } from "@mantine/hooks";
import { IconAlertTriangleFilled } from "@tabler/icons-react";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import type { Job } from "../../api/client";
import { useJobs } from "../../api/hooks";
import { usePower } from "../../api/power";
import { SAFETY_MARKS, safetySaid } from "../../app/TopStrip";
import { momentOf } from "../../app/times";
import { isTyping } from "../../app/useGoKeys";
import { jobs as words } from "../../words/jobs";
import "./jobs.css";
import { ImportJobs } from "./ImportJobs";
import { NewJobForm } from "./NewJobForm";

/** Today's work at a glance: what goes on, then what has ended. */
export function JobsRoom() {
  const [find, setFind] = useState("");
  const [wanted] = useDebouncedValue(find, 150);
  const { data: jobs, error } = useJobs(wanted);
  const [isOpening, setIsOpening] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  useDocumentTitle("Jobs · Ohmcensus");
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      if (event.key === "n") setIsOpening(true);
      else if (event.key === "/") field.current?.focus();
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);
  const going = (jobs ?? []).filter((job) => job.ended === null);
  const ended = (jobs ?? []).filter((job) => job.ended !== null);
  const isEmpty = jobs?.length === 0 && !find;
  return (
    <div className="page">
      <div className="head">
        <h1>{words.title}</h1>
        <span className="quiet keys">{words.keys}</span>
        {!isOpening && (
          <button type="button" className="act" onClick={() => setIsOpening(true)}>
            {words.new}
          </button>
        )}
      </div>
      {isOpening && <NewJobForm onClose={() => setIsOpening(false)} />}
      {error && <p className="problem">{error.message}</p>}
      {isEmpty && !isOpening && <p className="quiet">{words.none}</p>}
      {!isEmpty && (
        <TextInput
          ref={field}
          mt="md"
          size="md"
          aria-label={words.find}
          placeholder={`${words.find}: ${words.findHint}`}
          value={find}
          onChange={(event) => setFind(event.currentTarget.value)}
        />
      )}
      {jobs?.length === 0 && find && <p className="quiet">{words.noMatch}</p>}
      <ul className="job-list">
        {going.map((job) => (
          <li key={job.id}>
            <JobCard job={job} />
          </li>
        ))}
      </ul>
      {ended.length > 0 && (
        <>
          <h2 className="ended-head">{words.endedJobs(ended.length)}</h2>
          <ul className="job-list">
            {ended.map((job) => (
              <li key={job.id}>
                <EndedCard job={job} />
              </li>
            ))}
          </ul>
        </>
      )}
      <ImportJobs />
    </div>
  );
}

const DAY = 86_400_000;

/** Worth asking every other second: it is worked on today, or stands otherwise than not proved dead. */
function isWarm(job: Job): boolean {
  return job.safety !== "not_proved" || Date.now() - Date.parse(job.changed_at) < DAY;
}

function JobCard({ job }: { job: Job }) {
  const { stands, power } = usePower(job, isWarm(job));
  const Mark = SAFETY_MARKS[stands];
  const isLook = job.next_step.stage === "intake" && job.symptoms.length > 0;
  return (
    <Link to={`/jobs/${job.id}/${job.next_step.stage}${isLook ? "#look" : ""}`} className="card">
      <h2>
        {job.machine} <span className="quiet">· {job.place}</span>
      </h2>
      <p className={stands === "live" || stands === "under_voltage" ? "said live" : "said"}>
        <Mark size={18} aria-hidden /> {safetySaid(stands, power)}
      </p>
      <p>{job.complaint || job.symptoms.join(", ") || job.sheet_title}</p>
      <p className="count">
        {job.asked === 0 ? words.notStarted : words.asked(job.asked, job.lines)}
        {job.asked > 0 && (
          <>
            {" · "}
            <span className={job.outside > 0 ? "has-outside" : ""}>{words.outside(job.outside)}</span>
          </>
        )}
      </p>
      <p className="next-step">
        <b>{words.next}</b> {job.next_step.words}
      </p>
      <p className="quiet count">
        {words.changed} {momentOf(job.changed_at, Date.now())}
      </p>
      {job.hazards.length > 0 && (
        <p className="hazard">
          <IconAlertTriangleFilled size={18} aria-hidden />{" "}
          {job.hazards.map((hazard) => hazard.words).join(" · ")}
        </p>
      )}
    </Link>
  );
}

function EndedCard({ job }: { job: Job }) {
  return (
    <Link to={`/jobs/${job.id}/intake`} className="card is-ended">
      <h2>
        {job.machine} <span className="quiet">· {job.place}</span>
      </h2>
      <p className="quiet count">{momentOf(job.changed_at, Date.now())}</p>
      <p>{job.ended}</p>
    </Link>
  );
}
