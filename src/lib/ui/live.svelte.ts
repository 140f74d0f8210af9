import { liveQuery } from 'dexie';

/**
 * A query of the database that follows changes, made in this tab or another.
 * @param query reads what it depends on outside the returned function, so that it runs anew with it
 */
export function live<T>(query: () => () => Promise<T> | T): { readonly value: T | undefined } {
  let value = $state.raw<T | undefined>(undefined);
  $effect(() => {
    const subscription = liveQuery(query()).subscribe({
      next: (found) => (value = found),
      error: (error: unknown) => console.error(error)
    });
    return () => subscription.unsubscribe();
  });
  return {
    get value() {
      return value;
    }
  };
}
