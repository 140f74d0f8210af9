const ORIGIN = /^https?:\/\/[a-z0-9.-]+(:\d{1,5})?$|^https?:\/\/\[[0-9a-f:]+\](:\d{1,5})?$/;
/** Origins, and characters of all of them: they have room in a cookie once it is sealed. */
const [MOST, LONGEST, ROOM] = [40, 100, 2_000];

/** What is plainly an origin, once each and in order: it goes into a header of the page. */
export function plainOrigins(origins: readonly string[]): string[] {
  const plain = [...new Set(origins)].filter((o) => o.length <= LONGEST && ORIGIN.test(o)).sort();
  let room = ROOM;
  return plain.slice(0, MOST).filter((origin) => (room -= origin.length) >= 0);
}
