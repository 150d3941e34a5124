import { useEffect, useState } from "react";
import { type Undo, useUndo } from "../api/jobs";
import { undo as words } from "../words/frame";
import { Act } from "./controls/Act";
import { classes } from "./controls/classes";
import { useRoomKeys } from "./keys";
import { Problem } from "./Problem";
import { WaysOn, waysOf } from "./WaysOn";

/** So long it stays in sight wherever the page stands; after that at its end. */
const FRESH_MS = 30_000;

type Props = {
  jobId: string;
  /** What has its way back elsewhere in the room. */
  skips?: Undo["of"];
};

/** What was done last from this window, and the way back. */
export function UndoLast({ jobId, skips }: Props) {
  const { last, isBusy, error, take } = useUndo(jobId, { skips });
  const isFresh = useFresh(last?.id ?? "");
  useRoomKeys(last ? { undo: take } : {});
  if (!last) return null;
  return (
    <div className={classes("undo-last", isFresh && "is-fresh")}>
      <Act look="plain" disabled={isBusy} onClick={take}>
        {words.undo}
      </Act>
      <span className="quiet">{words.done(last.words)}</span>
      <Problem error={error} />
      <WaysOn jobId={jobId} acts={waysOf(error)} again={take} />
    </div>
  );
}

/** Whether something has just come. */
function useFresh(id: string): boolean {
  const [old, setOld] = useState("");
  useEffect(() => {
    if (!id) return;
    const timer = setTimeout(() => setOld(id), FRESH_MS);
    return () => clearTimeout(timer);
  }, [id]);
  return id !== "" && old !== id;
}
