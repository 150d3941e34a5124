import { IconFileImport } from "@tabler/icons-react";
import type { ChangeEvent } from "react";
import { useImportJobs } from "../../api/imports";
import { Act } from "../../app/controls/Act";
import { Problem } from "../../app/Problem";
import { jobs as words } from "../../words/jobs";

/** Jobs out of a file that was exported: all of them or none. */
export function ImportJobs() {
  const { begin, stop, view, error, isSending } = useImportJobs();
  const isRunning = isSending || view?.is_over === false;
  const choose = (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.currentTarget.files?.[0];
    if (file) begin(file);
    event.currentTarget.value = "";
  };
  return (
    <div className="import-jobs">
      <Act as="label" look="plain" className="photo-pick">
        <IconFileImport size={20} aria-hidden />
        {isRunning ? words.importing : words.import}
        <input type="file" accept=".json,.zip" disabled={isRunning} onChange={choose} />
      </Act>
      {view?.is_over === false && (
        <div className="row" role="status">
          <progress max={Math.max(1, view.total ?? 0)} value={view.done ?? 0} />
          <span>{words.progress(view.done ?? 0, view.total ?? 0)}</span>
          <Act look="plain" onClick={() => void stop()}>
            {words.stop}
          </Act>
        </div>
      )}
      {view?.is_over && !view.problem && (
        <p role="status">{words.imported(view.jobs?.length ?? 0, view.already?.length ?? 0)}</p>
      )}
      <Problem error={error} />
    </div>
  );
}
