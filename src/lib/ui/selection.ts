/**
 * What is selected once a row is reached from another with Shift held: the row that the selection began
 * at, all between, and the row itself, in addition to what was selected before.
 * @param ids of all rows that are shown, in their order
 * @param anchor where the selection began
 */
export function withRange(
  selected: ReadonlySet<string>,
  ids: readonly string[],
  anchor: number,
  to: number
): ReadonlySet<string> {
  const [from, until] = [Math.min(anchor, to), Math.max(anchor, to)];
  return new Set([...selected, ...ids.slice(Math.max(0, from), until + 1)]);
}

/** The same with one row more, or less where it is among them. */
export function withToggled(selected: ReadonlySet<string>, id: string): ReadonlySet<string> {
  const next = new Set(selected);
  if (!next.delete(id)) next.add(id);
  return next;
}
