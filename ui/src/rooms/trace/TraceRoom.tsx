import { useDocumentTitle } from "@mantine/hooks";
import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { useLocation, useParams } from "react-router";
import { ApiError, type Part, type Preview, type Trace } from "../../api/client";
import { useUndo } from "../../api/jobs";
import { type Objective, type SuspectsView, useSuspects } from "../../api/suspects";
import { useTrace, useWithdraw } from "../../api/trace";
import { Card } from "../../app/controls/Card";
import { useRoomKeys } from "../../app/keys";
import { keepLastJob } from "../../app/lastJob";
import { NoAnswer } from "../../app/NoAnswer";
import { usePhone } from "../../app/phone";
import { TopStrip } from "../../app/TopStrip";
import { UntilEnded } from "../../app/UntilEnded";
import { useIsNext } from "../../app/underHand";
import { unpressed } from "../../app/unpressed";
import { useForm } from "../../app/useForm";
import { isOutside } from "../../drawings/VerdictMark";
import { quick } from "../../words/trace";
import { LadderPanel } from "./LadderPanel";
import { PartPanel } from "./PartPanel";
import { PartsOverview } from "./PartsOverview";
import { type Correction, QuickLine, type QuickLineHandle } from "./QuickLine";
import { SideColumn } from "./SideColumn";
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
  const [chosen, choose] = useState<string | null>(null);
  const [logged, setLogged] = useState<string | null>(null);
  const [correction, setCorrection] = useState<Correction | null>(null);
  const [preview, setPreview] = useState<Preview | null>(null);
  const [dialog, setDialog] = useState<Dialog>(null);
  const [said, setSaid] = useState("");
  const { state, hash } = useLocation();
  const isLadderAsked = (state as { ladder?: boolean } | null)?.ladder ?? false;
  const [hasLadder, setHasLadder] = useState(isLadderAsked);
  const quickLine = useRef<QuickLineHandle>(null);
  useEffect(() => {
    if (hash) choose(decodeURIComponent(hash.slice(1)));
  }, [hash]);
  const withdraw = useWithdraw(jobId);
  const [objective, setObjective] = useForm<Objective>("ohmcensus.objective", "soonest");
  const { data: suspects } = useSuspects(jobId, objective);

  const setChosen = (key: string | null) => {
    choose(key);
    setLogged(null);
  };
  // What was just logged stays in sight until something else is typed or chosen.
  const lit = preview?.line ?? chosen ?? logged;
  const line = trace.lines.find((l) => l.key === lit) ?? null;
  // The reading that was logged here, whatever another window logged since.
  const justLogged = trace.lines.find((l) => l.key === logged)?.reading_id ?? null;
  const take = (key: string) => {
    setChosen(key);
    quickLine.current?.focus();
  };
  const takeBack = async (readingId: string | null) => {
    if (!readingId) return setSaid(quick.nothingToUndo);
    try {
      await withdraw.mutateAsync(readingId);
      setLogged(null);
      setSaid(quick.undone);
    } catch (problem) {
      if (problem instanceof ApiError) setSaid(problem.message);
    }
  };
  const correct = () => {
    const standing = trace.lines.find((l) => l.key === lit);
    if (!standing?.reading_id) return;
    setCorrection({ readingId: standing.reading_id, reads: standing.reads });
    quickLine.current?.begin(standing.typed, true);
  };
  const { take: undo } = useUndo(jobId, {
    skips: "reading",
    otherwise: () => void takeBack(trace.last_reading ?? null),
  });
  const turn = () => setHasLadder(!hasLadder);
  const { suggested, isFresh } = lineAsked(trace, suspects, logged !== null);
  const inQuestion = trace.lines.find((row) => row.key === (chosen ?? suggested)) ?? null;
  useRoomKeys({
    line: () => quickLine.current?.focus(),
    ...(suggested ? { next: () => take(suggested) } : {}),
    undo,
    why: () => document.getElementById("evidence")?.focus(),
    live: () => setDialog("live"),
    ladder: turn,
    up: () => setChosen(neighbour(trace, lit, -1)),
    down: () => setChosen(neighbour(trace, lit, 1)),
    enter: () => (line?.reading_id ? correct() : lit && take(lit)),
    leave: () => setChosen(null),
  });

  const isNarrow = usePhone();
  // On a phone the keys would cover how to measure it.
  useOnce(useIsNext() && !isNarrow && isFresh && suggested !== null, () => quickLine.current?.focus());
  // Which part is shown follows the suspects: until they are there, or late, none is, so that nothing moves away.
  const isAwaited = useAwaited(suspects !== undefined);
  const leading = suspects?.suspects.find((row) => row.chance >= LIKELY)?.part;
  const lookedAt = trace.parts.find((row) => row.id === suspects?.ask[0]?.test.split(".")[0])?.id;
  const proposed = suggested
    ? partOf(trace, suggested)
    : (lookedAt ?? leading ?? partOf(trace, firstOutside(trace)));
  const shown = lit ? partOf(trace, lit) : isAwaited ? null : proposed;
  const choosePart = (part: Part) => {
    const asked = suggested && part.lines.includes(suggested) ? suggested : null;
    setChosen(asked ?? part.worst ?? part.lines[0] ?? null);
  };
  const panel =
    shown === null ? (
      <Card className="part-panel" aria-busy="true" />
    ) : (
      <PartPanel
        jobId={jobId}
        trace={trace}
        part={shown}
        chosen={lit}
        preview={preview}
        suspects={suspects}
        onChoose={setChosen}
        onTake={take}
        onCorrect={correct}
        onTakeBack={(readingId) => void takeBack(readingId)}
      />
    );
  return (
    <div className="trace">
      <TopStrip job={trace.job} />
      <div className={hasLadder ? "work with-ladder" : "work"}>
        {hasLadder ? (
          <LadderPanel jobId={jobId} chosen={lit ?? suggested} onChoose={take} onBack={turn} />
        ) : (
          <>
            <PartsOverview
              trace={trace}
              suspects={suspects}
              shown={shown}
              asked={suggested}
              onChoose={choosePart}
              onPoints={() => setDialog("points")}
              onLadder={turn}
              beneath={isNarrow && panel}
            />
            {!isNarrow && panel}
          </>
        )}
        <SideColumn
          jobId={jobId}
          trace={trace}
          onTake={take}
          suspects={suspects}
          onObjective={setObjective}
        />
      </div>
      <UntilEnded job={trace.job}>
        <QuickLine
          ref={quickLine}
          jobId={jobId}
          trace={trace}
          preview={preview}
          onPreview={setPreview}
          correction={correction}
          onCorrected={() => setCorrection(null)}
          line={inQuestion}
          isChosen={chosen !== null}
          onLogged={(key) => {
            choose(null);
            setLogged(key);
          }}
          onUndo={justLogged ? () => void takeBack(justLogged) : null}
          said={said}
          onSaid={setSaid}
        />
      </UntilEnded>
      <Suspense fallback={null}>
        {dialog === "live" && <LiveDialog job={trace.job} opened onClose={() => setDialog(null)} />}
        {dialog === "points" && (
          <TwoPointsDialog jobId={jobId} trace={trace} opened onClose={() => setDialog(null)} />
        )}
      </Suspense>
    </div>
  );
}

/**
 * The line that is asked by itself. While the suspects are still those before the last reading, the sheet's own order
 * goes on; where something other than a test is next no line is, unless the lines are being read one after the other.
 */
function lineAsked(trace: Trace, suspects: SuspectsView | undefined, goesOn: boolean) {
  const isFresh = suspects !== undefined && suspects.job.revision >= trace.job.revision;
  const [first] = isFresh ? suspects.ask : [];
  const kind = isFresh ? suspects.act?.kind : undefined;
  const isOther = kind !== undefined && kind !== "test" && !goesOn;
  const suggested = first?.kind === "test" ? first.test : isOther ? null : (trace.next_line ?? null);
  return { suggested, isFresh };
}

/** Do something the first time that it is due. */
function useOnce(isDue: boolean, act: () => void) {
  const isDone = useRef(false);
  useEffect(() => {
    if (isDue && !isDone.current) act();
    isDone.current ||= isDue;
  });
}

/** Whether something is still on its way, and not yet late: what is late is not waited for. */
function useAwaited(isThere: boolean): boolean {
  const [isLate, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => unpressed(() => setLate(true)), LATE);
    return () => clearTimeout(timer);
  }, []);
  return !isThere && !isLate;
}

const LATE = 800;

function neighbour(trace: Trace, chosen: string | null, step: number): string {
  const at = trace.lines.findIndex((row) => row.key === chosen);
  const next = at < 0 ? 0 : Math.min(trace.lines.length - 1, Math.max(0, at + step));
  return trace.lines[next]?.key ?? "";
}

/** So likely is a part shown by itself where nothing is asked. */
const LIKELY = 0.5;
const partOf = (trace: Trace, key: string | null | undefined) =>
  trace.lines.find((row) => row.key === key)?.part ?? trace.parts[0]?.id ?? "";
const firstOutside = (trace: Trace) => trace.lines.find((row) => isOutside(row.verdict))?.key;
