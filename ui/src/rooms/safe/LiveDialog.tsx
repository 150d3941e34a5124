import { Checkbox, Modal, NumberInput } from "@mantine/core";
import { type FormEvent, useState } from "react";
import type { EventBody, Job } from "../../api/client";
import { useEvent } from "../../api/events";
import { useSafe } from "../../api/safe";
import { Act } from "../../app/controls/Act";
import { Field } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { useForm } from "../../app/useForm";
import { power as words } from "../../words/safe";

type Props = { job: Job; opened: boolean; onClose: () => void };

/** Live mode states its reason, what stays connected, and for how long; or it is left. */
export function LiveDialog({ job, opened, onClose }: Props) {
  const asks = useSafe(job.id).data?.asks ?? [];
  const [says, setSays] = useState<string[]>([]);
  const [reason, setReason, forgetReason] = useForm(`ohmcensus.live.reason.${job.id}`, "");
  const [stays, setStays, forgetStays] = useForm(`ohmcensus.live.stays.${job.id}`, "");
  const [minutes, setMinutes] = useState<number | string>(10);
  const event = useEvent(job.id);
  const isLive = job.safety === "live";
  const submit = async (form: FormEvent) => {
    form.preventDefault();
    try {
      await event.mutateAsync(
        isLive
          ? { kind: "live_ended" }
          : ({
              kind: "live_begun",
              reason,
              stays_connected: stays,
              minutes: Number(minutes) || 10,
              says,
            } as EventBody),
      );
      forgetReason();
      forgetStays();
      onClose();
    } catch {
      // said below the fields
    }
  };
  return (
    <Modal opened={opened} onClose={onClose} title={<b>{words.liveTitle}</b>} centered size={620}>
      <form className="stack" onSubmit={(form) => void submit(form)}>
        <p style={{ margin: 0 }}>{isLive ? words.leaveHelp : words.liveHelp}</p>
        {!isLive && (
          <>
            <Field label={words.reason} value={reason} maxLength={300} data-autofocus onChange={setReason} />
            <Field
              label={words.stays}
              placeholder={words.staysHelp}
              value={stays}
              maxLength={300}
              onChange={(typed) => setStays(typed)}
            />
            <NumberInput
              size="md"
              label={words.minutes}
              min={1}
              max={30}
              value={minutes}
              onChange={setMinutes}
              w={140}
            />
            {asks.map((row) => (
              <Checkbox
                key={row.id}
                label={words.stated(row.words)}
                checked={says.includes(row.id)}
                onChange={(change) =>
                  setSays(
                    change.currentTarget.checked ? [...says, row.id] : says.filter((said) => said !== row.id),
                  )
                }
              />
            ))}
          </>
        )}
        <EventProblem event={event} />
        <div className="row">
          <button type="submit" className={isLive ? "act" : "plain danger"} disabled={event.isPending}>
            {isLive ? words.leaveLive : words.begin}
          </button>
          <Act look="bare" onClick={onClose}>
            {words.cancel}
          </Act>
        </div>
      </form>
    </Modal>
  );
}
