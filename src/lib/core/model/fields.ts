import sameValue from 'fast-deep-equal';

/** What two copies of something come to, field by field. */
export interface Reconciled<F> {
  /** All fields as they are to be kept. */
  kept: F;
  /** Those that were changed there only, as they are there. */
  taken: Partial<F>;
  /** Those that were changed in both copies, as they are there. They are kept as they are there. */
  clashing: Partial<F>;
}

export const fieldNames = <F extends object>(fields: F): (keyof F)[] =>
  Object.keys(fields) as (keyof F)[];

/** The fields of one copy that differ from another; what the other lacks differs as well. */
export function changedFields<F extends object>(from: Partial<F>, to: F): Partial<F> {
  const changed: Partial<F> = {};
  for (const name of fieldNames(to)) if (!sameValue(from[name], to[name])) changed[name] = to[name];
  return changed;
}

/**
 * Brings together what is edited here and what was kept meanwhile from elsewhere, so that neither
 * wipes the other: a field changed on one side only is taken from that side.
 * @param known both sides had this when they last agreed
 * @param stored what is kept now; fields that it lacks were not changed there
 */
export function reconcile<F extends object>(
  known: Partial<F>,
  here: F,
  stored: Partial<F>
): Reconciled<F> {
  const result: Reconciled<F> = { kept: { ...here }, taken: {}, clashing: {} };
  for (const name of fieldNames(here)) {
    if (!(name in stored)) continue;
    const there = stored[name] as F[keyof F];
    if (sameValue(there, here[name]) || sameValue(there, known[name])) continue;
    const isChangedHere = !sameValue(here[name], known[name]);
    result.kept[name] = there;
    (isChangedHere ? result.clashing : result.taken)[name] = there;
  }
  return result;
}
