import { useDocumentTitle } from "@mantine/hooks";
import { useState } from "react";
import type { Meter } from "../../api/client";
import { useMeters } from "../../api/meters";
import { useSettings } from "../../api/settings";
import { setup as words } from "../../words/setup";
import { AddressBook } from "./AddressBook";
import { CostsForm } from "./CostsForm";
import { FirmForm } from "./FirmForm";
import { LimitsForm } from "./LimitsForm";
import { MeterForm } from "./MeterForm";
import { MeterList } from "./MeterList";
import { PersonForm } from "./PersonForm";
import { TextsCard } from "./TextsCard";
import "./setup.css";

/** Who works here, how warm it is, and which meters are in the bag. */
export function SetupRoom() {
  const settings = useSettings();
  const meters = useMeters();
  const [editing, setEditing] = useState<Meter | null>(null);
  useDocumentTitle("Setup · Ohmcensus");
  const problem = settings.error ?? meters.error;
  return (
    <div className="page setup stack">
      <h1>{words.title}</h1>
      {problem && <p className="problem">{problem.message}</p>}
      {settings.data && <PersonForm settings={settings.data} />}
      {settings.data && <LimitsForm settings={settings.data} />}
      {settings.data && <TextsCard settings={settings.data} />}
      {settings.data && <FirmForm settings={settings.data} />}
      {settings.data && <CostsForm settings={settings.data} />}
      {settings.data && meters.data && (
        <MeterList
          settings={settings.data}
          meters={meters.data.meters}
          generic={meters.data.generic}
          onEdit={setEditing}
        />
      )}
      {editing && (
        <MeterForm
          key={editing.id}
          start={editing}
          revision={meters.data?.revisions?.[editing.id] ?? 0}
          onClose={() => setEditing(null)}
        />
      )}
      <AddressBook />
    </div>
  );
}
