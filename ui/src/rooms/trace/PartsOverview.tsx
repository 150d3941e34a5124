import { IconCheck, IconX } from "@tabler/icons-react";
import { type ReactNode, useEffect, useRef } from "react";
import type { Line, Part, Trace } from "../../api/client";
import type { SuspectsView } from "../../api/suspects";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { moveUnpressed } from "../../app/unpressed";
import { LineMarks } from "../../drawings/LineMarks";
import { isOutside, verdictColour } from "../../drawings/VerdictMark";
import { rungs, trace as words } from "../../words/trace";

const MARKS_PX = 112;

type Props = {
  trace: Trace;
  suspects: SuspectsView | undefined;
  shown: string | null;
  asked: string | null;
  onChoose: (part: Part) => void;
  onPoints: () => void;
  onLadder: () => void;
  /** What stands under the chosen part where there is no room beside it. */
  beneath?: ReactNode;
};

/** The machine as one line a part, in the order in which current meets them. */
export function PartsOverview(props: Props) {
  const { trace, suspects, shown, asked, onChoose, onPoints, onLadder, beneath } = props;
  const lines = new Map(trace.lines.map((line) => [line.key, line]));
  const chances = new Map(suspects?.suspects.map((row) => [row.part, row.chance]));
  const loose = trace.lines.filter((line) => line.part === "");
  const pairs: Part = {
    id: "",
    title: words.pairs,
    lines: loose.map((line) => line.key),
    worst: null,
    outside: 0,
  };
  const hasBeneath = Boolean(beneath);
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => {
    if (hasBeneath) return;
    const row = list.current?.querySelector(`[data-part="${shown}"]`);
    moveUnpressed(() => row?.scrollIntoView({ block: "nearest" }));
  }, [shown, hasBeneath]);
  return (
    <Card className="overview" aria-label={words.sheet}>
      <div className="overview-head">
        <span>{words.order}</span>
        <span className="mono">{words.asked(trace.job.asked, trace.job.lines)}</span>
        <Act look="bare" onClick={onLadder}>
          {rungs.show}
        </Act>
      </div>
      <ul ref={list}>
        {[...trace.parts, ...(loose.length > 0 ? [pairs] : [])].map((part) => (
          <li key={part.id} data-part={part.id}>
            <PartRow
              part={part}
              lines={part.lines.flatMap((key) => lines.get(key) ?? [])}
              chance={chances.get(part.id) ?? 0}
              isShown={part.id === shown}
              asked={asked}
              onChoose={() => onChoose(part)}
            />
            {part.id === shown && beneath}
          </li>
        ))}
      </ul>
      <div className="overview-foot">
        {trace.looked.length > 0 && <LookedAt parts={trace.looked} />}
        <Act look="bare" onClick={onPoints}>
          {words.twoPoints}
        </Act>
      </div>
    </Card>
  );
}

/** Parts that no meter tells about, on one line; the names open. */
function LookedAt({ parts }: { parts: Trace["looked"] }) {
  const bad = parts.filter((part) => part.outcome === "bad");
  const looked = parts.filter((part) => part.outcome !== null);
  return (
    <details>
      <summary>
        {words.lookedAt(looked.length, parts.length)}
        {bad.length > 0 && <b className="problem"> {bad.map((part) => part.title).join(", ")}</b>}
      </summary>
      <ul>
        {parts.map((part) => (
          <li key={part.id}>
            {part.title}
            {part.outcome === "good" && <IconCheck size={16} role="img" aria-label={words.good} />}
            {part.outcome === "bad" && <IconX size={16} role="img" aria-label={words.bad} />}
          </li>
        ))}
      </ul>
    </details>
  );
}

type RowProps = {
  part: Part;
  lines: Line[];
  chance: number;
  isShown: boolean;
  asked: string | null;
  onChoose: () => void;
};

function PartRow({ part, lines, chance, isShown, asked, onChoose }: RowProps) {
  const worst = lines.find((line) => line.key === part.worst);
  return (
    <button
      type="button"
      className={part.outside > 0 ? "part-row is-outside" : "part-row"}
      aria-pressed={isShown}
      onClick={onChoose}
    >
      <span className="part-name">{part.title}</span>
      <LineMarks
        verdicts={lines.map((line) => line.verdict ?? null)}
        keys={lines.map((line) => line.key)}
        asked={asked}
        width={MARKS_PX}
      />
      <span className="mono part-reads" style={{ color: verdictColour(worst?.verdict) }}>
        {worst?.reads}
      </span>
      {chance >= 0.005 && (
        <span className="part-chance" title={words.suspected(Math.round(100 * chance))}>
          <span style={{ width: `${100 * chance}%` }} />
        </span>
      )}
      {worst && isOutside(worst.verdict) && <span className="hidden">{worst.sentence}</span>}
    </button>
  );
}
