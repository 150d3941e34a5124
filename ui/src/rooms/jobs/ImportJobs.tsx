import { IconFileImport } from "@tabler/icons-react";
import { type ChangeEvent, useState } from "react";
import { useImportJobs } from "../../api/sheetOut";
import { Problem } from "../../app/Problem";
import { jobs as words } from "../../words/jobs";

/** Jobs out of a file that was exported: all of them or none. */
export function ImportJobs() {
  const bring = useImportJobs();
  const [said, setSaid] = useState("");
  const choose = async (event: ChangeEvent<HTMLInputElement>) => {
    const input = event.currentTarget;
    const file = input.files?.[0];
    if (!file) return;
    setSaid("");
    try {
      const found = await bring.mutateAsync(file);
      setSaid(words.imported(found.jobs.length, found.already.length));
    } catch {
      // said below
    }
    input.value = "";
  };
  return (
    <div className="import-jobs">
      <label className="plain bordered photo-pick">
        <IconFileImport size={20} aria-hidden />
        {bring.isPending ? words.importing : words.import}
        <input type="file" accept=".json,.zip" onChange={(event) => void choose(event)} />
      </label>
      {said && <p role="status">{said}</p>}
      <Problem error={bring.error} />
    </div>
  );
}
