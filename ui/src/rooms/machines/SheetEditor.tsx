import { type SheetView, useSheet } from "../../api/sheets";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { figure } from "../../app/figure";
import { machines as words } from "../../words/machines";
import { CopyBar } from "./CopyBar";
import { DraftBar } from "./DraftBar";
import { Choice, Field, Remarks } from "./fields";
import { NamedRows } from "./NamedRows";
import { PartsSection } from "./PartsSection";
import { SideColumn } from "./SideColumn";
import { useSheetDraft } from "./useSheetDraft";
import { WiringSection } from "./WiringSection";

const FIGURES = ["volts", "hertz", "watts"] as const;

/** One machine sheet: read when it is built in, changed when it is one's own. */
export function SheetEditor({ sheetId }: { sheetId: string }) {
  const { data, error } = useSheet(sheetId);
  if (error) return <p className="problem">{error.message}</p>;
  if (!data) return <p className="quiet">{words.loading}</p>;
  return <Loaded key={sheetId} view={data} />;
}

function Loaded({ view }: { view: SheetView }) {
  const draft = useSheetDraft(view);
  const { raw, change } = draft;
  const isOwn = view.is_own;
  const rows = { raw, remarks: view.remarks, isOwn, onChange: change };
  return (
    <div className="sheet-editor">
      <div className="head">
        <h1>{String(raw.title ?? view.title)}</h1>
        <span className="row">
          {(["yaml", "json"] as const).map((form) => (
            <Act as="a" look="plain" key={form} href={`/api/sheets/${view.id}/export.${form}`} download>
              {words[form]}
            </Act>
          ))}
        </span>
      </div>
      {isOwn ? <DraftBar draft={draft} view={view} /> : <CopyBar of={view.id} title={view.title} />}
      <div className="two-columns">
        <div>
          <Card aria-label={words.plate}>
            <h2>{words.plate}</h2>
            <fieldset disabled={!isOwn} className="sheet-grid">
              <Field label={words.fields.title} value={raw.title} onChange={(title) => change({ title })} />
              {FIGURES.map((name) => (
                <Field
                  key={name}
                  label={words.fields[name]}
                  value={raw[name]}
                  onChange={(text) => change({ [name]: figure(text) || text })}
                />
              ))}
              <Choice
                label={words.fields.protection_class}
                value={String(raw.protection_class ?? "")}
                choices={["I", "II"].map((value) => ({ value, label: value }))}
                onChange={(protection_class) => change({ protection_class })}
              />
              {["title", ...FIGURES].map((name) => (
                <Remarks key={name} remarks={view.remarks} at={[name]} />
              ))}
            </fieldset>
          </Card>
          <PartsSection raw={raw} view={view} isOwn={isOwn} onChange={change} />
          <NamedRows
            {...rows}
            title={words.panels}
            section="panels"
            addWord={words.addPanel}
            fresh={{ title: "Panel", minutes: 3 }}
            columns={[
              { key: "title", label: words.fields.title },
              { key: "minutes", label: words.minutes },
            ]}
          />
          <NamedRows
            {...rows}
            title={words.plugs}
            section="plugs"
            addWord={words.addPlug}
            fresh={{ title: "Plug", parts: [] }}
            columns={[
              { key: "title", label: words.fields.title },
              { key: "parts", label: words.plugParts, isList: true },
              { key: "pins", label: words.plugPins, isList: true },
            ]}
          />
          <NamedRows
            {...rows}
            title={words.states}
            section="states"
            addWord={words.addState}
            fresh={["at rest"]}
            columns={[{ key: "", label: words.stateValues, isList: true }]}
          />
          <WiringSection raw={raw} view={view} isOwn={isOwn} onChange={change} />
        </div>
        <div className="sheet-side">
          <SideColumn view={view} />
        </div>
      </div>
    </div>
  );
}
