import { Link, useParams } from "react-router";
import { type SheetOutView, useSheetOut } from "../../api/sheetOut";
import { Card } from "../../app/controls/Card";
import { JobRoom } from "../../app/JobRoom";
import { momentOf } from "../../app/times";
import { sheetOut as words } from "../../words/sheetOut";
import { CostsCard } from "./CostsCard";
import { FilesCard } from "./FilesCard";
import { PhotosCard } from "./PhotosCard";
import "./sheetOut.css";

/** What goes out: the sheet in words, what it costs, who signed it, and the files. */
export function SheetOutRoom() {
  const { jobId = "" } = useParams();
  const { data, error } = useSheetOut(jobId);
  return (
    <JobRoom title={words.title} job={data?.job} error={error}>
      {data && (
        <div className="sheet-out">
          <div className="sheet-out-main">
            <SignedCard view={data} />
            <SaidCard view={data} />
            <PhotosCard view={data} />
            <CostsCard key={`${data.is_costed} ${data.total}`} view={data} />
          </div>
          <aside>
            <FilesCard view={data} />
          </aside>
        </div>
      )}
    </JobRoom>
  );
}

/** Whether it is signed, what blocks it, and every sheet that was signed before. */
function SignedCard({ view }: { view: SheetOutView }) {
  return (
    <Card isStack aria-label={words.signed}>
      <h2>{words.signed}</h2>
      <p className="big">{view.signed || words.notSigned}</p>
      {!view.is_signed && (
        <p>
          {view.blocking.length > 0 && `${words.blocks(view.blocking.length)} `}
          <Link to={`/jobs/${view.job.id}/prove`}>{words.toProve}</Link>
        </p>
      )}
      {view.revisions.length > 0 && (
        <>
          <h3>{words.revisions}</h3>
          <ul className="revisions">
            {view.revisions.map((row) => (
              <li key={row.revision}>
                <a
                  href={`/api/jobs/${view.job.id}/report.pdf?revision=${row.revision}`}
                  target="_blank"
                  rel="noreferrer"
                >
                  {words.revision(row.revision)}
                </a>
                , {momentOf(row.at, Date.now())}, {row.who}: {row.why}
                {row.is_labelled_unsafe && <b> {words.unsafe}</b>}
              </li>
            ))}
          </ul>
        </>
      )}
    </Card>
  );
}

function SaidCard({ view }: { view: SheetOutView }) {
  return (
    <Card aria-label={words.said}>
      <h2>{words.said}</h2>
      <dl className="report">
        <dt>{words.found}</dt>
        <dd>
          {view.found}
          {view.leak_tests.length > 0 && <LeakTests view={view} />}
        </dd>
        <dt>{words.done}</dt>
        <dd>
          {view.done.length === 0 ? (
            words.nothing
          ) : (
            <ul>
              {view.done.map((row, at) => (
                <li key={at}>{row}</li>
              ))}
            </ul>
          )}
        </dd>
        <dt>{words.proved}</dt>
        <dd>{view.proved || words.noProof}</dd>
        <dt>{words.customer}</dt>
        <dd>
          {view.customer.map((section) => (
            <section key={section.title}>
              {section.title && <h3>{section.title}</h3>}
              {section.sentences.map((row) => (
                <p key={row}>{row}</p>
              ))}
            </section>
          ))}
          {view.is_signed && view.signature && <p>{words.signedBy(view.signature)}</p>}
          {!view.is_signed && <p className="quiet">{words.unsignedBy}</p>}
        </dd>
      </dl>
    </Card>
  );
}

/** The tests that isolated a leak: the table that proves it. */
function LeakTests({ view }: { view: SheetOutView }) {
  return (
    <table className="leak-tests">
      <caption>{words.leakTests}</caption>
      <thead>
        <tr>
          {words.leakHead.map((name) => (
            <th key={name} scope="col">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {view.leak_tests.map((row, at) => (
          <tr key={at}>
            <td>{row.at}</td>
            <td>{row.connected}</td>
            <td className="mono">{row.reads}</td>
            <td>{row.proved}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
