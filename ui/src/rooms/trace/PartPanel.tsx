import { IconNote } from "@tabler/icons-react";
import { Fragment, useEffect, useRef } from "react";
import type { Line, Preview, Trace } from "../../api/client";
import type { SuspectsView } from "../../api/suspects";
import { Card } from "../../app/controls/Card";
import { moveUnpressed } from "../../app/unpressed";
import { type Ghost, OhmRuler } from "../../drawings/OhmRuler";
import { ShortRuler } from "../../drawings/ShortRuler";
import { isOutside, VerdictMark } from "../../drawings/VerdictMark";
import { trace as words } from "../../words/trace";
import { Evidence } from "./Evidence";

type Props = {
  jobId: string;
  trace: Trace;
  part: string;
  chosen: string | null;
  preview: Preview | null;
  suspects: SuspectsView | undefined;
  onChoose: (key: string | null) => void;
  onTake: (key: string) => void;
  onCorrect: () => void;
  onTakeBack: (readingId: string) => void;
};

/** The chosen part: its stretch of the ohm ruler, its lines, and under the chosen one all there is to say of it. */
export function PartPanel(props: Props) {
  const { jobId, trace, part, chosen, preview, suspects, onChoose, onTake, onCorrect, onTakeBack } = props;
  const lines = trace.lines.filter((line) => line.part === part);
  const title = lines[0]?.part_title ?? words.pairs;
  const body = useRef<HTMLTableSectionElement>(null);
  useEffect(() => {
    const row = chosen ? body.current?.querySelector('[aria-selected="true"]') : null;
    moveUnpressed(() => row?.scrollIntoView({ block: "nearest" }));
  }, [chosen]);
  const asked = suspects?.ask[0];
  const isAskedHere = asked?.kind === "test" && lines.some((line) => line.key === asked.test);
  return (
    <Card className="part-panel" aria-label={title}>
      <h2>{title}</h2>
      <OhmRuler
        ruler={trace.ruler}
        lines={lines.map((line) => line.key)}
        chosen={chosen}
        ghost={ghostOf(preview, lines)}
        expected={isAskedHere && preview?.line !== asked.test ? asked.expects : []}
      />
      <table className="part-lines">
        <thead className="hidden">
          <tr>
            <th>{words.columns.test}</th>
            <th>{words.columns.says}</th>
            <th>{words.columns.reads}</th>
          </tr>
        </thead>
        <tbody ref={body}>
          {lines.map((line) => (
            <Fragment key={line.key}>
              <LineRow
                line={line}
                isChosen={line.key === chosen}
                onChoose={() => onChoose(line.key === chosen ? null : line.key)}
                onTake={() => onTake(line.key)}
              />
              {line.key === chosen && (
                <tr className="evidence-row">
                  <td colSpan={3}>
                    <Evidence jobId={jobId} line={line} onCorrect={onCorrect} onTakeBack={onTakeBack} />
                  </td>
                </tr>
              )}
            </Fragment>
          ))}
          {trace.comparisons
            .filter((row) => row.part === part)
            .map((row) => (
              <Compared key={row.title} row={row} />
            ))}
        </tbody>
      </table>
    </Card>
  );
}

function ghostOf(preview: Preview | null, lines: Line[]): Ghost | null {
  if (preview?.position === null || preview?.position === undefined) return null;
  if (preview.line && !lines.some((line) => line.key === preview.line)) return null;
  return { x: preview.position, verdict: preview.verdict ?? null, label: preview.reads ?? "" };
}

/** A row drawn from several lines: three phases, like valves, two brushes. Nothing is typed into it. */
function Compared({ row }: { row: Trace["comparisons"][number] }) {
  return (
    <tr className={isOutside(row.verdict) ? "compared is-outside" : "compared"}>
      <th scope="row">
        {row.title}
        <span className="should">{row.should}</span>
      </th>
      <td className="mark">
        <VerdictMark verdict={row.verdict} />
      </td>
      <td className="reads mono">
        {row.reads}
        <span className="remark">{row.remark}</span>
      </td>
    </tr>
  );
}

type RowProps = { line: Line; isChosen: boolean; onChoose: () => void; onTake: () => void };

function LineRow({ line, isChosen, onChoose, onTake }: RowProps) {
  const isDrawn = line.ruler && line.unit !== "ohm" && line.verdict && !line.remark;
  return (
    <tr
      className={isOutside(line.verdict) ? "is-outside" : ""}
      aria-selected={isChosen}
      tabIndex={0}
      data-line={line.key}
      onClick={onChoose}
      onKeyDown={(event) => event.key === "Enter" && line.part && onTake()}
    >
      <th scope="row">
        {line.title}
        {line.note && <IconNote size={18} role="img" aria-label={words.hasNote} />}
        {line.should && (
          <span className="should">
            {words.shouldRead} <span className="mono">{line.should}</span>
          </span>
        )}
      </th>
      <td className="mark">
        <VerdictMark verdict={line.verdict ?? null} />
      </td>
      <td className="reads mono">
        {line.reads}
        {isDrawn ? (
          <ShortRuler
            ruler={line.ruler as NonNullable<Line["ruler"]>}
            verdict={line.verdict}
            width={110}
            labels={false}
          />
        ) : (
          line.remark && <span className="remark">{line.remark}</span>
        )}
      </td>
    </tr>
  );
}
