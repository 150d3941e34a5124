import { useDocumentTitle } from "@mantine/hooks";
import { useShelf } from "../../api/shelf";
import { Card } from "../../app/controls/Card";
import { Problem } from "../../app/Problem";
import { frame } from "../../words/frame";
import { shelf as words } from "../../words/shelf";
import { SpareCard } from "./SpareCard";
import { SpareForm } from "./SpareForm";
import "./shelf.css";

/** The shelf of spares: where each came from, what is known of it, where it is now. */
export function ShelfRoom() {
  useDocumentTitle(`${words.title} · Ohmcensus`);
  const { data, error } = useShelf();
  return (
    <div className="page shelf">
      <h1>{words.title}</h1>
      <p className="quiet">{words.cautions}</p>
      <Problem error={error} />
      {!data && !error && <p className="quiet">{frame.loading}</p>}
      {data && (
        <div className="shelf-body">
          <div className="stack">
            {data.spares.length === 0 && <p className="quiet">{words.none}</p>}
            {data.spares.map((row) => (
              <SpareCard key={row.id} row={row} view={data} />
            ))}
          </div>
          <aside>
            <Card>
              <h2>{words.add}</h2>
              <SpareForm view={data} />
            </Card>
          </aside>
        </div>
      )}
    </div>
  );
}
