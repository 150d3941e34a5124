const HOUR = 3_600_000;
const VISIT = 12 * HOUR;

/** Time of day of a moment, as a clock on the wall shows it. */
export function timeOf(moment: string): string {
  return new Date(moment).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit", hour12: false });
}

/** Hours and minutes since the job was opened; the date once that is no longer one visit. */
export function clockOf(opened: string, now: number, word: string): string {
  const since = Math.max(0, now - Date.parse(opened));
  if (since > VISIT) return `${word} ${dayOf(opened)}`;
  const minutes = Math.floor(since / 60_000);
  return `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;
}

export function dayOf(moment: string): string {
  return new Date(moment).toLocaleDateString([], { day: "numeric", month: "short" });
}
