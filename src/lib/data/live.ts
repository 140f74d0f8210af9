import { liveQuery } from 'dexie';

/**
 * Follows a query of the database through changes, made in this tab, another or a worker.
 * @returns what ends it
 */
export function follow<T>(
  query: () => Promise<T> | T,
  next: (found: T) => void,
  failed: (error: unknown) => void
): () => void {
  const subscription = liveQuery(query).subscribe({ next, error: failed });
  return () => subscription.unsubscribe();
}
