import { useState } from "react";
import { useEvent } from "../../api/events";
import type { RepairView } from "../../api/repair";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Chip } from "../../app/controls/Chip";
import { EventProblem } from "../../app/EventProblem";
import { PhotoPick } from "../../app/PhotoPick";
import { connector as words } from "../../words/repair";
import { ConnectorEditor } from "./ConnectorEditor";
import { ConnectorPhoto, pinWords } from "./ConnectorPhoto";

/** Connectors as they were before they were pulled; going back, every pin is held against the photo. */
export function ConnectorsCard({ view }: { view: RepairView }) {
  const { connectors, loose } = view.strip;
  return (
    <Card aria-label={words.title}>
      <h2>{words.title}</h2>
      {connectors.length + loose.length === 0 && <p className="quiet">{words.none}</p>}
      {loose.map((photo) => (
        <ConnectorEditor key={photo.id} view={view} photo={photo} start={{ words: "", plug: "", pins: [] }} />
      ))}
      {connectors.map((row) => (
        <ConnectorRow key={row.photo.id} row={row} view={view} />
      ))}
      {!view.is_over && <PhotoPick jobId={view.job.id} of="connector" label={words.take} />}
    </Card>
  );
}

type RowProps = { row: RepairView["strip"]["connectors"][number]; view: RepairView };

function ConnectorRow({ row, view }: RowProps) {
  const record = useEvent(view.job.id);
  const [isOpen, setIsOpen] = useState(!row.is_whole);
  const [isEditing, setIsEditing] = useState(false);
  const plug = view.strip.plugs.find((found) => found.words === row.plug)?.id ?? "";
  const noted = { words: row.words, plug, pins: row.pins };
  const tick = (pins: number[]) => record.mutate({ kind: "connector_ticked", photo: row.photo.id, pins });
  const turn = (number: number) =>
    tick(row.ticked.includes(number) ? row.ticked.filter((n) => n !== number) : [...row.ticked, number]);
  if (isEditing)
    return <ConnectorEditor view={view} photo={row.photo} start={noted} onDone={() => setIsEditing(false)} />;
  return (
    <div className="connector">
      <div className="strip-line">
        <b>
          {row.words}
          {row.plug && row.plug !== row.words && <span className="quiet"> · {row.plug}</span>}
        </b>
        <span>{row.is_whole ? words.whole : words.ticked(row.ticked.length, row.pins.length)}</span>
      </div>
      {isOpen && (
        <>
          <ConnectorPhoto
            photo={row.photo}
            pins={row.pins}
            marked={row.ticked}
            {...(view.is_over ? {} : { onPin: (pin) => turn(pin.number) })}
          />
          <ul className="pin-ticks">
            {row.pins.map((pin) => (
              <li key={pin.number}>
                <Chip
                  isOn={row.ticked.includes(pin.number)}
                  disabled={view.is_over}
                  onClick={() => turn(pin.number)}
                >
                  {row.ticked.includes(pin.number) ? "✓ " : ""}
                  {pinWords(pin)}
                </Chip>
              </li>
            ))}
          </ul>
        </>
      )}
      <EventProblem event={record} />
      <div className="row wrap">
        {!view.is_over && row.pins.length === 0 && !row.is_whole && (
          <Act onClick={() => tick([])}>{words.asWhole}</Act>
        )}
        <Act look="plain" onClick={() => setIsOpen(!isOpen)}>
          {isOpen ? words.fold : words.unfold}
        </Act>
        {!view.is_over && (
          <>
            <Act look="bare" onClick={() => setIsEditing(true)}>
              {words.edit}
            </Act>
            <Act
              look="bare"
              onClick={() =>
                record.mutate({
                  kind: "connector_noted",
                  ...noted,
                  photo: row.photo.id,
                  is_withdrawn: true,
                })
              }
            >
              {words.withdraw}
            </Act>
          </>
        )}
      </div>
    </div>
  );
}
