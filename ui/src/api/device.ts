const KEY = "ohmcensus.device";

/** This browser's own name on what it writes: only the one that proved a machine dead keeps the proof alive. */
export function deviceId(): string {
  const known = localStorage.getItem(KEY);
  if (known) return known;
  const made = crypto.randomUUID();
  localStorage.setItem(KEY, made);
  return made;
}
