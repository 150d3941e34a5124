import { IconNote } from "@tabler/icons-react";
import { Fragment, useEffect, useRef } from "react";
import type { Line, Trace } from "../../api/client";
import { ShortRuler } from "../../drawings/ShortRuler";
import { VerdictMark } from "../../drawings/VerdictMark";
import { trace as words } from "../../words/trace";

type Props = {
  trace: Trace;
  chosen: string | null;
  onChoose: (key: string) => void;
  onTake: (key: string) => void;
  onPoints: () => void;
};

const OUTSIDE = new Set(["outside_low", "outside_high", "open", "short"]);

/** All lines of the machine, one a test, in the order in which current passes the parts. */
export function CensusSheet({ trace, chosen, onChoose, onTake, onPoints }: Props) {
  const body = useRef<HTMLTableSectionElement>(null);
  useEffect(() => {
    if (chosen) body.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: "nearest" });
  }, [chosen]);
  return (
    <section className="census card" aria-label={words.sheet}>
      <table>
        <thead>
          <tr>
            <th colSpan={3}>{words.columns.part}</th>
            <th style={{ textAlign: "right" }}>{words.columns.reads}</th>
            <th>{words.columns.should}</th>
            <th className="says">{words.columns.says}</th>
          </tr>
        </thead>
        <tbody ref={body}>
          {trace.lines.map((line, index) => (
            <Fragment key={line.key}>
              <Row
                line={line}
                isFirst={line.part !== trace.lines[index - 1]?.part || line.part === ""}
                isChosen={line.key === chosen}
                isTop={index === 0}
                onChoose={() => onChoose(line.key)}
                onTake={() => onTake(line.key)}
              />
              {line.part !== trace.lines[index + 1]?.part &&
                trace.comparisons
                  .filter((row) => row.part === line.part)
                  .map((row) => <Compared key={row.title} row={row} />)}
            </Fragment>
          ))}
        </tbody>
      </table>
      <div className="census-foot">
        <button type="button" className="plain bordered" onClick={onPoints}>
          {words.twoPoints}
        </button>
        <span className="quiet">{words.export}</span>
        <a
          className="plain bordered"
          href={`/api/jobs/${trace.job.id}/report.pdf`}
          target="_blank"
          rel="noreferrer"
        >
          PDF
        </a>
        <a className="plain bordered" href={`/api/jobs/${trace.job.id}/export.csv`} download>
          CSV
        </a>
        <a className="plain bordered" href={`/api/jobs/${trace.job.id}/export.json`} download>
          JSON
        </a>
      </div>
    </section>
  );
}

/** A row drawn from several lines: three phases, like valves, two brushes. Nothing is typed into it. */
function Compared({ row }: { row: Trace["comparisons"][number] }) {
  return (
    <tr className={OUTSIDE.has(row.verdict) ? "compared is-outside" : "compared"}>
      <th scope="row" className="part" aria-label={row.title} />
      <td className="test">{row.title}</td>
      <td className="mark">
        <VerdictMark verdict={row.verdict} />
      </td>
      <td className="reads mono">{row.reads}</td>
      <td className="should">{row.should}</td>
      <td className="says">{row.remark}</td>
    </tr>
  );
}

type RowProps = {
  line: Line;
  isFirst: boolean;
  isChosen: boolean;
  isTop: boolean;
  onChoose: () => void;
  onTake: () => void;
};

function Row({ line, isFirst, isChosen, isTop, onChoose, onTake }: RowProps) {
  const classes = [
    isFirst ? "part-first" : "",
    line.verdict && OUTSIDE.has(line.verdict) ? "is-outside" : "",
  ];
  const isTouch = () => window.matchMedia("(pointer: coarse), (max-width: 760px)").matches;
  return (
    <tr
      className={classes.join(" ")}
      aria-selected={isChosen}
      tabIndex={isChosen || isTop ? 0 : -1}
      data-line={line.key}
      onClick={() => (isTouch() && line.part ? onTake() : onChoose())}
      onKeyDown={(event) => event.key === "Enter" && line.part && onTake()}
    >
      <th scope="row" className="part">
        <span className={isFirst ? "" : "hidden again"}>{line.part_title}</span>
      </th>
      <td className="test">
        {line.title}
        {line.note && <IconNote size={18} role="img" aria-label={words.hasNote} />}
      </td>
      <td className="mark">
        <VerdictMark verdict={line.verdict ?? null} />
      </td>
      <td className="reads mono">{line.reads}</td>
      <td className="should mono">{line.should}</td>
      <td className="says">
        {line.ruler && line.unit !== "ohm" && line.verdict && !line.remark ? (
          <ShortRuler ruler={line.ruler} verdict={line.verdict} width={110} labels={false} />
        ) : (
          line.remark
        )}
      </td>
    </tr>
  );
}
