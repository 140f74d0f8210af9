/**
 * What has to go for the rest to fit into a room.
 * @param things those used last come first
 * @param bytesOf what each takes
 * @returns those for which nothing is left, once all before them have their room
 */
export function beyondRoom<T>(
  things: readonly T[],
  bytesOf: (thing: T) => number,
  room: number
): T[] {
  let taken = 0;
  return things.filter((thing) => {
    taken += bytesOf(thing);
    return taken > room;
  });
}

/**
 * Whether an error tells that the browser has no room left. By its words: an error from a worker comes over
 * as a plain one.
 */
export const tellsOfNoRoom = (told: string): boolean => /quota/i.test(told);
