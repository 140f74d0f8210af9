import { follow } from '$lib/data/live.ts';

/**
 * A query of the database that follows changes, made in this tab or another.
 * @param query reads what it depends on outside the returned function, so that it runs anew with it
 */
export function live<T>(query: () => () => Promise<T> | T): { readonly value: T | undefined } {
  let value = $state.raw<T | undefined>(undefined);
  $effect(() =>
    follow(
      query(),
      (found) => (value = found),
      (error) => console.error(error)
    )
  );
  return {
    get value() {
      return value;
    }
  };
}
