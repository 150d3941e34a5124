import { useDebouncedValue, useDocumentTitle } from "@mantine/hooks";
import { IconAlertTriangleFilled } from "@tabler/icons-react";
import { type ReactNode, useRef, useState } from "react";
import { Link } from "react-router";
import type { ListedJob } from "../../api/client";
import { useJobs } from "../../api/jobs";
import { usePower } from "../../api/power";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Field } from "../../app/controls/Field";
import { useRoomKeys } from "../../app/keys";
import { SAFETY_MARKS, safetySaid } from "../../app/TopStrip";
import { momentOf } from "../../app/times";
import { AS_NEXT } from "../../app/underHand";
import { jobs as words } from "../../words/jobs";
import "./jobs.css";
import { ImportJobs } from "./ImportJobs";
import { NewJobForm } from "./NewJobForm";

/** Today's work at a glance: what goes on, then what has ended. */
export function JobsRoom() {
  const [find, setFind] = useState("");
  const [wanted] = useDebouncedValue(find, 150);
  const [showsEnded, setShowsEnded] = useState(false);
  const going = useJobs(wanted, false);
  const over = useJobs(wanted, true, showsEnded || wanted !== "");
  const [isOpening, setIsOpening] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  useDocumentTitle("Jobs · Ohmcensus");
  useRoomKeys({ line: () => field.current?.focus(), next: () => setIsOpening(true) });
  const first = going.data?.pages[0];
  const isEmpty = first !== undefined && first.going + first.ended === 0;
  const error = going.error ?? over.error;
  return (
    <div className="page">
      <div className="head">
        <h1>{words.title}</h1>
        <span className="quiet keys">{words.keys}</span>
        {!isOpening && <Act onClick={() => setIsOpening(true)}>{words.new}</Act>}
      </div>
      {isOpening && <NewJobForm onClose={() => setIsOpening(false)} />}
      {error && <p className="problem">{error.message}</p>}
      {isEmpty && !wanted && !isOpening && <p className="quiet">{words.none}</p>}
      {(!isEmpty || wanted) && (
        <Field
          ref={field}
          mt="md"
          aria-label={words.find}
          placeholder={`${words.find}: ${words.findHint}`}
          value={find}
          onChange={(typed) => setFind(typed)}
        />
      )}
      {isEmpty && wanted && <p className="quiet">{words.noMatch}</p>}
      <JobList list={going} Card={JobCard} />
      {first !== undefined && first.ended > 0 && (
        <>
          <h2 className="ended-head">
            {wanted ? (
              words.endedJobs(first.ended)
            ) : (
              <Act look="bare" aria-expanded={showsEnded} onClick={() => setShowsEnded(!showsEnded)}>
                {showsEnded ? words.endedJobs(first.ended) : words.showEnded(first.ended)}
              </Act>
            )}
          </h2>
          {(showsEnded || wanted) && <JobList list={over} Card={EndedCard} />}
        </>
      )}
      <ImportJobs />
    </div>
  );
}

type ListProps = { list: ReturnType<typeof useJobs>; Card: (props: { job: ListedJob }) => ReactNode };

/** Pages of jobs, one under the other, and the way to the next one. */
function JobList({ list, Card }: ListProps) {
  const jobs = list.data?.pages.flatMap((page) => page.jobs) ?? [];
  return (
    <>
      <ul className="job-list">
        {jobs.map((job) => (
          <li key={job.id}>{job.problem ? <UnreadableCard job={job} /> : <Card job={job} />}</li>
        ))}
      </ul>
      {list.hasNextPage && (
        <Act
          look="plain"
          className="more-jobs"
          disabled={list.isFetchingNextPage}
          onClick={() => void list.fetchNextPage()}
        >
          {words.more}
        </Act>
      )}
    </>
  );
}

/** A job whose rows are damaged: it says so, and the others go on. */
function UnreadableCard({ job }: { job: ListedJob }) {
  return (
    <Card as="div">
      <JobName job={job} />
      <p className="hazard">
        <IconAlertTriangleFilled size={18} aria-hidden /> {job.problem}
      </p>
    </Card>
  );
}

function JobName({ job }: { job: ListedJob }) {
  return (
    <h2>
      <bdi>{job.machine}</bdi>{" "}
      <span className="quiet">
        · <bdi>{job.place}</bdi>
      </span>
    </h2>
  );
}

const DAY = 86_400_000;

/** Worth asking every other second: it is worked on today, or stands otherwise than not proved dead. */
function isWarm(job: ListedJob): boolean {
  return job.safety !== "not_proved" || Date.now() - Date.parse(job.changed_at) < DAY;
}

function JobCard({ job }: { job: ListedJob }) {
  const { stands, power } = usePower(job, isWarm(job));
  const Mark = SAFETY_MARKS[stands];
  const isLook = job.next_step.stage === "intake" && job.symptoms.length > 0;
  return (
    <Card as={Link} to={`/jobs/${job.id}/${job.next_step.stage}${isLook ? "#look" : ""}`} state={AS_NEXT}>
      <JobName job={job} />
      <p className={stands === "live" || stands === "under_voltage" ? "said live" : "said"}>
        <Mark size={18} aria-hidden /> {safetySaid(stands, power)}
      </p>
      <p>
        <bdi>{job.complaint || job.symptoms.join(", ") || job.sheet_title}</bdi>
      </p>
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
        {job.named && `${words.named(job.named)} · `}
        {words.changed} {momentOf(job.changed_at, Date.now())}
      </p>
      {job.hazards.length > 0 && (
        <p className="hazard">
          <IconAlertTriangleFilled size={18} aria-hidden />{" "}
          {job.hazards.map((hazard) => hazard.words).join(" · ")}
        </p>
      )}
    </Card>
  );
}

function EndedCard({ job }: { job: ListedJob }) {
  return (
    <Card as={Link} to={`/jobs/${job.id}/intake`} className="is-ended">
      <JobName job={job} />
      <p className="quiet count">{momentOf(job.changed_at, Date.now())}</p>
      <p>{job.ended}</p>
    </Card>
  );
}
