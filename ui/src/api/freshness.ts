import type { QueryClient, QueryFilters, QueryKey } from "@tanstack/react-query";

/**
 * Ask again for what is shown, whatever is on its way: an answer that was asked for before a write may not know of it.
 *
 * Without the first line a first answer that is still awaited would be taken for the new one.
 */
export function askAgain(queries: QueryClient, filters: QueryFilters): Promise<void> {
  void queries.cancelQueries({ ...filters, fetchStatus: "fetching" }, { silent: true, revert: false });
  return queries.invalidateQueries(filters);
}

/** Show what a write answered; whatever was asked for before it does not go over it. */
export function showAnswer(queries: QueryClient, key: QueryKey, answer: unknown): void {
  void queries.cancelQueries({ queryKey: key, exact: true });
  queries.setQueryData(key, answer);
}
