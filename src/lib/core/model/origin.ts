/** A key as the name that a made item carries in its properties (RFC 4122). */
export const uidOfKey = (key: string): string => `urn:uuid:${key}`;

/** The key in such a name, or null. */
export const keyOfUid = (uid: string | undefined): string | null =>
  /^urn:uuid:([\da-f-]{36})$/i.exec(uid?.trim() ?? '')?.[1]?.toLowerCase() ?? null;
