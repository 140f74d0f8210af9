const rules = new Intl.PluralRules('en');

/**
 * A count with its noun: `1 item`, `1,200 items`.
 * @param one the noun for one, and `many` for any other number
 */
export const plural = (n: number, one: string, many: string): string =>
  `${n.toLocaleString('en')} ${rules.select(n) === 'one' ? one : many}`;
