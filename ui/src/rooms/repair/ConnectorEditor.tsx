import { Checkbox, NativeSelect } from "@mantine/core";
import { IconX } from "@tabler/icons-react";
import { useState } from "react";
import type { Photo } from "../../api/client";
import { useEvent } from "../../api/events";
import { useRemovePhoto } from "../../api/photos";
import type { RepairView } from "../../api/repair";
import { Act } from "../../app/controls/Act";
import { Field } from "../../app/controls/Field";
import { Problem } from "../../app/Problem";
import { useForm } from "../../app/useForm";
import { connector as words } from "../../words/repair";
import { ConnectorPhoto, type Pin } from "./ConnectorPhoto";

type Draft = { words: string; plug: string; pins: Pin[] };
type Props = { view: RepairView; photo: Photo; start: Draft; onDone?: () => void };

/** Numbered pins on a connector's photo, each with its label and colour; what is marked stays until it is stored. */
export function ConnectorEditor({ view, photo, start, onDone }: Props) {
  const record = useEvent(view.job.id);
  const remove = useRemovePhoto(view.job.id);
  const [draft, setDraft, forget] = useForm<Draft>(`ohmcensus.connector.${photo.id}`, start);
  const [chosen, setChosen] = useState<number | null>(null);
  const add = (x: number, y: number) => {
    const number = Math.max(0, ...draft.pins.map((pin) => pin.number)) + 1;
    setDraft({ ...draft, pins: [...draft.pins, { number, x, y, label: "", colour: "", is_empty: false }] });
    setChosen(number);
  };
  const change = (number: number, part: Partial<Pin>) =>
    setDraft({
      ...draft,
      pins: draft.pins.map((pin) => (pin.number === number ? { ...pin, ...part } : pin)),
    });
  const keep = async () => {
    try {
      await record.mutateAsync({
        kind: "connector_noted",
        photo: photo.id,
        words: draft.words,
        plug: draft.plug,
        pins: draft.pins,
        is_withdrawn: false,
      });
      forget();
      onDone?.();
    } catch {
      // said below
    }
  };
  return (
    <div className="connector-edit stack">
      <ConnectorPhoto
        photo={photo}
        pins={draft.pins}
        marked={chosen === null ? [] : [chosen]}
        onPin={(pin) => setChosen(pin.number)}
        onPlace={add}
        onNudge={(pin, dx, dy) => change(pin.number, { x: within(pin.x + dx), y: within(pin.y + dy) })}
      />
      <p className="quiet">{words.how}</p>
      <div className="worth-fields">
        <Field
          label={words.name}
          placeholder={words.nameHint}
          value={draft.words}
          onChange={(typed) => setDraft({ ...draft, words: typed })}
        />
        <NativeSelect
          label={words.plug}
          value={draft.plug}
          data={[
            { value: "", label: words.noPlug },
            ...view.strip.plugs.map((row) => ({ value: row.id, label: row.words })),
          ]}
          onChange={(event) => setDraft({ ...draft, plug: event.currentTarget.value })}
        />
      </div>
      <ol className="pin-rows">
        {draft.pins.map((pin) => (
          <li key={pin.number} className={pin.number === chosen ? "chosen" : undefined}>
            <b className="mono">{pin.number}</b>
            <Field
              aria-label={words.labelOf(pin.number)}
              placeholder={words.label}
              value={pin.label ?? ""}
              onChange={(typed) => change(pin.number, { label: typed })}
            />
            <Field
              aria-label={words.colourOf(pin.number)}
              placeholder={words.colour}
              value={pin.colour ?? ""}
              onChange={(typed) => change(pin.number, { colour: typed })}
            />
            <Checkbox
              label={words.empty}
              checked={pin.is_empty ?? false}
              onChange={(event) => change(pin.number, { is_empty: event.currentTarget.checked })}
            />
            <Act
              look="bare"
              aria-label={words.removePin(pin.number)}
              onClick={() =>
                setDraft({ ...draft, pins: draft.pins.filter((row) => row.number !== pin.number) })
              }
            >
              <IconX size={18} aria-hidden />
            </Act>
          </li>
        ))}
      </ol>
      <Problem error={record.error ?? remove.error} />
      <div className="row wrap">
        <Act look="plain" onClick={() => add(0.5, 0.5)}>
          {words.addPin}
        </Act>
        <Act disabled={record.isPending} onClick={() => void keep()}>
          {words.keep}
        </Act>
        {onDone === undefined && (
          <Act look="bare" onClick={() => remove.mutate(photo.id)}>
            {words.removePhoto}
          </Act>
        )}
      </div>
    </div>
  );
}

const within = (share: number) => Math.min(1, Math.max(0, share));
