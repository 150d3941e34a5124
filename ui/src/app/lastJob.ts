const KEY = "ohmcensus.job";

/** The job that was open last, so that the rail leads back to it. */
export function readLastJob(): string | null {
  return localStorage.getItem(KEY);
}

export function keepLastJob(jobId: string | null) {
  if (jobId === null) localStorage.removeItem(KEY);
  else localStorage.setItem(KEY, jobId);
}
