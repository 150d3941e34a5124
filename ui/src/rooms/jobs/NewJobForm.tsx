import { Autocomplete, Textarea } from "@mantine/core";
import { type FormEvent, type KeyboardEvent, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { useAddresses, useMachines } from "../../api/addresses";
import { useOpenJob } from "../../api/jobs";
import { useSheets } from "../../api/sheets";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Problem } from "../../app/Problem";
import { useForm } from "../../app/useForm";
import { jobs as words } from "../../words/jobs";
import { TypePick } from "./TypePick";

const EMPTY = { machine: "", place: "", sheet: "", complaint: "" };
const AT = " · ";

/** A new job, on a known machine or a new one; what is typed outlives a reload. */
export function NewJobForm({ onClose }: { onClose: () => void }) {
  const [draft, setDraft, forget] = useForm("ohmcensus.newJob", EMPTY);
  const [problem, setProblem] = useState("");
  const id = useRef(crypto.randomUUID());
  const { data: sheets } = useSheets();
  const { data: machines } = useMachines();
  const { data: addresses } = useAddresses();
  const open = useOpenJob();
  const navigate = useNavigate();
  const known = machines?.find(
    (row) => row.name === draft.machine.trim() && row.place === draft.place.trim(),
  );
  const places = (addresses ?? []).filter((row) => row.kind === "place" && !row.is_archived);
  const set = (field: keyof typeof EMPTY) => (value: string) =>
    setDraft((before) => ({ ...before, [field]: value }));
  const setMachine = (value: string) => {
    const chosen = machines?.find((row) => `${row.name}${AT}${row.place}` === value);
    if (chosen)
      setDraft((before) => ({ ...before, machine: chosen.name, place: chosen.place, sheet: chosen.sheet }));
    else set("machine")(value);
  };
  const submit = async (event?: FormEvent) => {
    event?.preventDefault();
    if (!draft.machine.trim() || !draft.place.trim()) return setProblem(words.missing);
    if (!draft.sheet && !known) return setProblem(words.noSheet);
    try {
      const job = await open.mutateAsync({
        ...draft,
        id: id.current,
      });
      forget();
      void navigate(`/jobs/${job.id}/intake`);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const enter = (event: KeyboardEvent) => {
    if (event.key === "Enter" && !event.shiftKey) {
      event.preventDefault();
      void submit();
    }
  };
  return (
    <Card as="form" isStack className="new-job" onSubmit={(event) => void submit(event)} noValidate>
      <Autocomplete
        label={words.machine}
        placeholder={words.machineHint}
        value={draft.machine}
        onChange={setMachine}
        data={(machines ?? []).map((row) => `${row.name}${AT}${row.place}`)}
        limit={6}
        withScrollArea={false}
        openOnFocus={false}
        maxLength={120}
        data-autofocus
        autoFocus
      />
      <Autocomplete
        label={words.place}
        placeholder={words.placeHint}
        value={draft.place}
        onChange={set("place")}
        data={places.map((row) => row.name)}
        limit={6}
        withScrollArea={false}
        openOnFocus={false}
        maxLength={120}
      />
      {known ? (
        <p className="quiet" style={{ margin: 0 }}>
          {words.known(known.place)}
        </p>
      ) : (
        <TypePick sheets={sheets ?? []} value={draft.sheet} onChange={set("sheet")} />
      )}
      <Textarea
        label={words.complaint}
        value={draft.complaint}
        onChange={(event) => set("complaint")(event.currentTarget.value)}
        onKeyDown={enter}
        maxLength={2000}
        rows={2}
      />
      <Problem text={problem} />
      <div className="row">
        <Act type="submit" disabled={open.isPending}>
          {words.open}
        </Act>
        <Act look="bare" onClick={onClose}>
          {words.cancel}
        </Act>
      </div>
    </Card>
  );
}
