import { useEffect } from "react";
import { client, type Preview, unwrap } from "../../api/client";

/** Ask the core what the typed line says, at every keystroke; an older answer never overtakes a newer one. */
export function usePreview(
  jobId: string,
  revision: number,
  text: string,
  meter: string | null,
  onPreview: (preview: Preview | null) => void,
) {
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new revision may change what the same line says
  useEffect(() => {
    if (!text.trim()) {
      onPreview(null);
      return;
    }
    const abort = new AbortController();
    const params = { path: { job_id: jobId } };
    unwrap(client.POST("/api/jobs/{job_id}/preview", { params, body: { text, meter }, signal: abort.signal }))
      .then(onPreview)
      .catch(() => undefined);
    return () => abort.abort();
  }, [jobId, revision, text, meter, onPreview]);
}
