import { Autocomplete, NativeSelect, Textarea } from "@mantine/core";
import { type FormEvent, type KeyboardEvent, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { useOpenJob, useSheets } from "../../api/hooks";
import { useAddresses, useMachines } from "../../api/rooms";
import { Problem } from "../../app/Problem";
import { useForm } from "../../app/useForm";
import { jobs as words } from "../../words/jobs";

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
    try {
      const job = await open.mutateAsync({
        ...draft,
        sheet: draft.sheet || (known ? "" : (sheets?.[0]?.id ?? "")),
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
    <form className="card stack new-job" onSubmit={(event) => void submit(event)} noValidate>
      <Autocomplete
        size="md"
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
        size="md"
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
        <NativeSelect
          size="md"
          label={words.sheet}
          value={draft.sheet}
          onChange={(event) => set("sheet")(event.currentTarget.value)}
          data={(sheets ?? []).map((sheet) => ({
            value: sheet.id,
            label: `${sheet.id} · ${sheet.title} · ${sheet.supply}`,
          }))}
        />
      )}
      <Textarea
        size="md"
        label={words.complaint}
        value={draft.complaint}
        onChange={(event) => set("complaint")(event.currentTarget.value)}
        onKeyDown={enter}
        maxLength={2000}
        rows={2}
      />
      <Problem text={problem} />
      <div className="row">
        <button type="submit" className="act" disabled={open.isPending}>
          {words.open}
        </button>
        <button type="button" className="plain" onClick={onClose}>
          {words.cancel}
        </button>
      </div>
    </form>
  );
}
