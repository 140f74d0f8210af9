/**
 * Does several things at once. Where one of them fails, the others are asked to stop, and it is waited
 * until all have ended: what they hold open is free again before anybody tries anew.
 * @throws what failed first
 */
export async function together(
  works: readonly (() => Promise<unknown>)[],
  stopOthers: () => void
): Promise<void> {
  const failures: unknown[] = [];
  await Promise.allSettled(
    works.map((work) =>
      work().catch((error: unknown) => {
        failures.push(error);
        if (failures.length === 1) stopOthers();
      })
    )
  );
  if (failures.length > 0) throw failures[0];
}
