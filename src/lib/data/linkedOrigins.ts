/** Tells our server which origins this browser's linked places have, for the page's policy. */
export const FRAME_COOKIE = 'linked-origins';

const ORIGIN = /^https?:\/\/[a-z0-9.-]+(:\d{1,5})?$|^https?:\/\/\[[0-9a-f:]+\](:\d{1,5})?$/;
const MAX_ORIGINS = 40;

/** Anything that is not plainly an origin is dropped: what stays goes into a header. */
export const originsFromCookie = (cookie: string | undefined): string[] =>
  (cookie ?? '')
    .split('|')
    .filter((origin) => ORIGIN.test(origin))
    .slice(0, MAX_ORIGINS);

export const cookieFor = (origins: readonly string[]): string => {
  const value = encodeURIComponent(
    [...new Set(origins)]
      .filter((o) => ORIGIN.test(o))
      .sort()
      .slice(0, MAX_ORIGINS)
      .join('|')
  );
  return `${FRAME_COOKIE}=${value}; path=/; max-age=31536000; samesite=strict`;
};
