import { IconArrowRight } from "@tabler/icons-react";
import { Link, useLocation } from "react-router";
import { useOutlook } from "../api/jobs";
import { next as words } from "../words/frame";
import { Act } from "./controls/Act";
import { AS_NEXT } from "./underHand";

type Props = {
  jobId: string;
  /** Whether the job has ended: then it says so, and nothing is next. */
  isOver?: boolean;
};

/** The end of every room: who is named, and the one thing to do next, with the way there. */
export function NextBar({ jobId, isOver = false }: Props) {
  const { data } = useOutlook(jobId);
  const { pathname } = useLocation();
  if (!data) return null;
  const { stage, words: what } = data.next_step;
  const to = `/jobs/${jobId}/${stage}`;
  const named = data.named.map((row) => row.words).join(words.and);
  const isHere = pathname === to;
  return (
    <section className="next-bar" aria-label={words.title}>
      <p>
        {named && <b>{words.named(named)} </b>}
        {isHere && (isOver ? what : words.here(what))}
      </p>
      <span className="quiet keys">{words.keys}</span>
      {!isHere && (
        <Act as={Link} to={to} state={AS_NEXT}>
          {isOver ? what : words.next(what)}
          <IconArrowRight size={20} aria-hidden />
        </Act>
      )}
    </section>
  );
}
