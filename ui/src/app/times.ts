const HOUR = 3_600_000;
const VISIT = 12 * HOUR;

/** Time of day of a moment, as a clock on the wall shows it. */
export function timeOf(moment: string): string {
  return new Date(moment).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit", hour12: false });
}

/** Hours and minutes since the job was opened; the date once that is no longer one visit. */
export function clockOf(opened: string, now: number, word: string): string {
  const since = Math.max(0, now - Date.parse(opened));
  if (since > VISIT) return `${word} ${dayOf(opened)}`;
  const minutes = Math.floor(since / 60_000);
  return `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;
}

export function dayOf(moment: string): string {
  return new Date(moment).toLocaleDateString("en-GB", { day: "numeric", month: "short" });
}

/** Time of day, with the date before it once that is not today's. */
export function momentOf(moment: string, now: number): string {
  const isToday = new Date(moment).toDateString() === new Date(now).toDateString();
  return isToday ? timeOf(moment) : `${dayOf(moment)}, ${timeOf(moment)}`;
}

/** A day with its year. */
export function fullDayOf(day: string): string {
  return new Date(`${day}T12:00:00`).toLocaleDateString("en-GB", {
    day: "numeric",
    month: "short",
    year: "numeric",
  });
}
