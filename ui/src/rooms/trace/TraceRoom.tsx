import { useDocumentTitle } from "@mantine/hooks";
import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { useLocation, useParams } from "react-router";
import { ApiError, type Preview, type Trace } from "../../api/client";
import { useTrace, useWithdraw } from "../../api/hooks";
import { type Objective, useSuspects } from "../../api/suspects";
import { useRoomKeys } from "../../app/keys";
import { keepLastJob } from "../../app/lastJob";
import { NoAnswer } from "../../app/NoAnswer";
import { TopStrip } from "../../app/TopStrip";
import { useForm } from "../../app/useForm";
import { type Ghost, OhmRuler } from "../../drawings/OhmRuler";
import { quick, rungs } from "../../words/trace";
import { CensusSheet } from "./CensusSheet";
import { LadderPanel } from "./LadderPanel";
import { LinePanel } from "./LinePanel";
import { type Correction, QuickLine, type QuickLineHandle } from "./QuickLine";
import "./trace.css";

/** Dialogs come with the parts of forms that the sheet itself does not need: loaded when one is opened. */
const LiveDialog = lazy(async () => ({ default: (await import("../safe/LiveDialog")).LiveDialog }));
const TwoPointsDialog = lazy(async () => ({ default: (await import("./TwoPointsDialog")).TwoPointsDialog }));

type Dialog = "live" | "points" | null;

/** The trace screen of one job: ruler, census sheet, the line in question, and the quick line. */
export function TraceRoom() {
  const { jobId = "" } = useParams();
  const { data, error } = useTrace(jobId);
  useEffect(() => {
    if (data) keepLastJob(jobId);
  }, [data, jobId]);
  useDocumentTitle(data ? `${data.job.machine} · Ohmcensus` : "Ohmcensus");
  return data ? <Loaded key={jobId} jobId={jobId} trace={data} /> : <NoAnswer error={error} />;
}

function Loaded({ jobId, trace }: { jobId: string; trace: Trace }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const [correction, setCorrection] = useState<Correction | null>(null);
  const [preview, setPreview] = useState<Preview | null>(null);
  const [dialog, setDialog] = useState<Dialog>(null);
  const [said, setSaid] = useState("");
  const isLadderAsked = (useLocation().state as { ladder?: boolean } | null)?.ladder ?? false;
  const [hasLadder, setHasLadder] = useState(isLadderAsked);
  const quickLine = useRef<QuickLineHandle>(null);
  const withdraw = useWithdraw(jobId);
  const [objective, setObjective] = useForm<Objective>("ohmcensus.objective", "soonest");
  const { data: suspects } = useSuspects(jobId, objective);

  const lit = preview?.line ?? chosen;
  const line = trace.lines.find((l) => l.key === lit) ?? null;
  const take = (key: string) => {
    setChosen(key);
    quickLine.current?.begin(key.replace(".", " "));
  };
  const takeBack = async (readingId: string | null) => {
    if (!readingId) return setSaid(quick.nothingToUndo);
    try {
      await withdraw.mutateAsync(readingId);
      setSaid(quick.undone);
    } catch (problem) {
      if (problem instanceof ApiError) setSaid(problem.message);
    }
  };
  const correct = () => {
    const standing = trace.lines.find((l) => l.key === chosen);
    if (!standing?.reading_id) return;
    setCorrection({ readingId: standing.reading_id, reads: standing.reads });
    quickLine.current?.begin(standing.typed, true);
  };
  const undo = () => takeBack(trace.last_reading ?? null);
  const turn = () => setHasLadder(!hasLadder);
  const asked = suspects?.ask[0];
  const suggested = asked?.kind === "test" ? asked.test : (trace.next_line ?? null);
  useRoomKeys({
    line: () => quickLine.current?.focus(),
    ...(suggested ? { next: () => take(suggested) } : {}),
    undo: () => void undo(),
    why: () => document.getElementById("evidence")?.focus(),
    live: () => setDialog("live"),
    ladder: turn,
    up: () => setChosen(neighbour(trace, chosen, -1)),
    down: () => setChosen(neighbour(trace, chosen, 1)),
    enter: () => (line?.reading_id ? correct() : chosen && take(chosen)),
    leave: () => setChosen(null),
  });

  return (
    <div className="trace">
      <TopStrip job={trace.job} />
      <OhmRuler
        ruler={trace.ruler}
        chosen={lit}
        ghost={ghostOf(preview)}
        expected={preview?.line === suspects?.ask[0]?.test ? [] : (suspects?.ask[0]?.expects ?? [])}
        caption={line ? `${line.part_title}, ${line.title}${line.should ? `: ${line.should}` : ""}` : ""}
      />
      <div className="work">
        <div className="centre">
          <fieldset className="chips views">
            <legend className="hidden">{rungs.title}</legend>
            {[false, true].map((ladder) => (
              <button
                type="button"
                key={String(ladder)}
                className="chip"
                aria-pressed={hasLadder === ladder}
                onClick={() => setHasLadder(ladder)}
              >
                {ladder ? rungs.show : rungs.sheet}
              </button>
            ))}
          </fieldset>
          {hasLadder ? (
            <LadderPanel jobId={jobId} chosen={lit} onChoose={take} />
          ) : (
            <CensusSheet
              trace={trace}
              chosen={lit}
              onChoose={setChosen}
              onTake={take}
              onPoints={() => setDialog("points")}
            />
          )}
        </div>
        <LinePanel
          jobId={jobId}
          trace={trace}
          line={line}
          onTake={take}
          onCorrect={correct}
          onTakeBack={(readingId) => void takeBack(readingId)}
          suspects={suspects}
          onObjective={setObjective}
        />
      </div>
      <QuickLine
        ref={quickLine}
        jobId={jobId}
        trace={trace}
        preview={preview}
        onPreview={setPreview}
        correction={correction}
        onCorrected={() => setCorrection(null)}
        onLogged={setChosen}
        said={said}
        onSaid={setSaid}
      />
      <Suspense fallback={null}>
        {dialog === "live" && <LiveDialog job={trace.job} opened onClose={() => setDialog(null)} />}
        {dialog === "points" && (
          <TwoPointsDialog jobId={jobId} trace={trace} opened onClose={() => setDialog(null)} />
        )}
      </Suspense>
    </div>
  );
}

function neighbour(trace: Trace, chosen: string | null, step: number): string {
  const at = trace.lines.findIndex((row) => row.key === chosen);
  const next = at < 0 ? 0 : Math.min(trace.lines.length - 1, Math.max(0, at + step));
  return trace.lines[next]?.key ?? "";
}

function ghostOf(preview: Preview | null): Ghost | null {
  if (preview?.position === null || preview?.position === undefined) return null;
  return { x: preview.position, verdict: preview.verdict ?? null, label: preview.reads ?? "" };
}
