/**
 * The time, second by second, for as long as somebody needs it.
 * @param isNeeded read within an effect
 */
export function clock(isNeeded: () => boolean): { readonly value: number } {
  let value = $state(Date.now());
  $effect(() => {
    if (!isNeeded()) return;
    const timer = setInterval(() => (value = Date.now()), 1_000);
    return () => clearInterval(timer);
  });
  return {
    get value() {
      return value;
    }
  };
}
