import { useDocumentTitle } from "@mantine/hooks";
import { NavLink, useNavigate, useParams } from "react-router";
import { useImportSheet, useSheets } from "../../api/sheets";
import { Act } from "../../app/controls/Act";
import { machines as words } from "../../words/machines";
import { SheetEditor } from "./SheetEditor";
import "./machines.css";

/** All machine sheets on the left, the chosen one beside them. */
export function MachinesRoom() {
  const { sheetId } = useParams();
  const { data, error } = useSheets();
  const taken = useImportSheet();
  const navigate = useNavigate();
  useDocumentTitle(`${words.title} · Ohmcensus`);
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      void navigate(`/machines/${(await taken.mutateAsync(file)).id}`);
    } catch {
      // said below
    }
  };
  const problem = error ?? taken.error;
  return (
    <div className={sheetId ? "machines with-sheet" : "machines"}>
      <nav className="sheet-list" aria-label={words.list}>
        {sheetId ? <h2>{words.title}</h2> : <h1>{words.title}</h1>}
        {data?.map((sheet) => (
          <NavLink key={sheet.id} to={`/machines/${sheet.id}`}>
            <b>{sheet.title}</b>
            <span>
              {[sheet.supply, sheet.is_own ? words.own : words.builtIn, sheet.has_draft ? words.draft : ""]
                .filter(Boolean)
                .join(" · ")}
            </span>
          </NavLink>
        ))}
        <Act as="label" look="plain" className="photo-pick">
          {words.import}
          <input
            type="file"
            accept=".yaml,.yml,.json"
            onChange={(event) => {
              void take(event.currentTarget.files?.[0]);
              event.currentTarget.value = "";
            }}
          />
        </Act>
        {problem && (
          <p className="problem" role="alert">
            {problem.message}
          </p>
        )}
      </nav>
      <div className="machines-body">
        {sheetId ? <SheetEditor key={sheetId} sheetId={sheetId} /> : <p className="quiet">{words.choose}</p>}
      </div>
    </div>
  );
}
