import { useState } from "react";
import { useParams } from "react-router";
import type { Codes } from "../../api/client";
import { useCodes } from "../../api/codes";
import { Card } from "../../app/controls/Card";
import { JobRoom } from "../../app/JobRoom";
import { UntilEnded } from "../../app/UntilEnded";
import { codes as words } from "../../words/codes";
import { CoachCard } from "./CoachCard";
import "./codes.css";
import { CycleCard } from "./CycleCard";
import { LampsCard } from "./LampsCard";
import { MeaningsCard } from "./MeaningsCard";

/** Listening to the machine, panels shut: its codes, the way in, its own test. */
export function CodesRoom() {
  const { jobId = "" } = useParams();
  const { data, error } = useCodes(jobId);
  return (
    <JobRoom title={words.title} job={data?.job} error={error}>
      {data && <Loaded key={jobId} view={data} />}
    </JobRoom>
  );
}

function Loaded({ view }: { view: Codes }) {
  const [schemeId, setSchemeId] = useState(view.schemes[0]?.id ?? "");
  const scheme = view.schemes.find((row) => row.id === schemeId) ?? view.schemes[0];
  if (!scheme) return <p className="quiet">{words.none}</p>;
  const isUnread = view.read.length === 0;
  const isIn = view.sequences.some((row) => row.is_in);
  return (
    <>
      {view.no_power ? (
        <Card as="p" className="tells-none" role="alert">
          <b>{words.noPower}</b>: {view.no_power}
        </Card>
      ) : (
        isUnread &&
        view.job.ended === null && (
          <Card as="p" className="nudge" role="note">
            {isIn ? words.writeFirst : words.readFirst}
          </Card>
        )
      )}
      <div className="two-columns">
        <div>
          <UntilEnded job={view.job}>
            <LampsCard key={scheme.id} view={view} scheme={scheme} onScheme={setSchemeId} />
            {view.cycles.map((cycle) => (
              <CycleCard key={cycle.id} jobId={view.job.id} cycle={cycle} />
            ))}
          </UntilEnded>
        </div>
        <div>
          <UntilEnded job={view.job}>
            {view.sequences.map((sequence) => (
              <CoachCard key={sequence.id} jobId={view.job.id} sequence={sequence} isUnread={isUnread} />
            ))}
          </UntilEnded>
          <MeaningsCard key={scheme.id} view={view} scheme={scheme} />
        </div>
      </div>
    </>
  );
}
