/**
 * Does something once a value has stopped changing for a while, as long as the component lives. To
 * be called while it is set up.
 * @param milliseconds in which further changes are waited for
 * @param watch reads what is followed; null does nothing
 */
export function soon<T>(
  milliseconds: number,
  watch: () => T | null,
  work: (value: T) => unknown
): void {
  $effect(() => {
    const value = watch();
    if (value === null) return;
    const timer = setTimeout(() => void work(value), milliseconds);
    return () => clearTimeout(timer);
  });
}
