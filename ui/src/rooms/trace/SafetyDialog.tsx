import { Modal, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Safety, Trace } from "../../api/client";
import { useStateSafety } from "../../api/hooks";
import { safetyDialog as words } from "../../words/frame";

type Props = { jobId: string; trace: Trace; opened: boolean; onClose: () => void };

/** The technician states what is known about voltage; live mode needs a reason. */
export function SafetyDialog({ jobId, trace, opened, onClose }: Props) {
  const [reason, setReason] = useState("");
  const [problem, setProblem] = useState("");
  const state = useStateSafety(jobId);
  const say = async (wanted: Safety) => {
    if (wanted === "live" && !reason.trim()) return setProblem(words.reasonMissing);
    try {
      await state.mutateAsync({ state: wanted, reason: wanted === "live" ? reason : "" });
      setProblem("");
      onClose();
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const current = trace.job.safety;
  return (
    <Modal opened={opened} onClose={onClose} title={<b>{words.title}</b>} centered size={620}>
      <div className="stack">
        <p style={{ margin: 0 }}>{words.caution}</p>
        <div>
          <button type="button" className="act" onClick={() => void say("dead")} data-autofocus>
            {words.dead}
          </button>
          <p className="quiet">{words.deadHow}</p>
        </div>
        {current !== "not_proved" && (
          <div>
            <button type="button" className="plain bordered" onClick={() => void say("not_proved")}>
              {words.notProved}
            </button>
            <p className="quiet">{words.notProvedHow}</p>
          </div>
        )}
        <div className="stack danger-box">
          <TextInput
            size="md"
            label={words.reason}
            value={reason}
            maxLength={300}
            onChange={(event) => setReason(event.currentTarget.value)}
            error={problem}
          />
          <div>
            <button type="button" className="plain danger" onClick={() => void say("live")}>
              {words.live}
            </button>
            <p className="quiet">{words.liveHow}</p>
          </div>
        </div>
      </div>
    </Modal>
  );
}
