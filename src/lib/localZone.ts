/** IANA name of the time zone of whoever sits at this browser. */
export const localZone = (): string => new Intl.DateTimeFormat().resolvedOptions().timeZone;
