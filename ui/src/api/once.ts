import { ApiError } from "./client";

/** An id that was sent and not acknowledged, with what was sent under it and when. */
type Waiting = { said: string; id: string; at: number };

const waiting = new Map<string, Waiting>();
/** After so long the same thing again is meant as another one. */
const FORGOTTEN = 10 * 60_000;

/**
 * Send something so that it is stored once: under the same id until it is acknowledged or anything about it changes.
 *
 * The key names the place that sends, e.g. the kind of event of a job; it outlives the component.
 */
export async function sendOnce<T>(key: string, what: unknown, send: (id: string) => Promise<T>): Promise<T> {
  const said = JSON.stringify(what);
  const before = waiting.get(key);
  const isSame = before?.said === said && Date.now() - before.at < FORGOTTEN;
  const mine = isSame && before ? before : { said, id: crypto.randomUUID(), at: Date.now() };
  try {
    const answer = await send(mine.id);
    waiting.delete(key);
    return answer;
  } catch (error) {
    if (!isRefused(error)) waiting.set(key, mine);
    throw error;
  }
}

/** A refusal says that nothing was stored; whatever else may have been lost on its way back. */
function isRefused(error: unknown): boolean {
  return error instanceof ApiError && error.problem !== undefined;
}

/** What tells one file from another without reading it. */
export function fileMark(file: File): string {
  return `${file.name} ${file.size} ${file.lastModified}`;
}
