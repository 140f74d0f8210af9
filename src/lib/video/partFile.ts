const MARK = '-part-';

/** The post that a file is a part for; null where it is no part. */
export const postOfPart = (name: string): string | null => {
  const at = name.lastIndexOf(MARK);
  return at < 0 ? null : name.slice(0, at);
};

/** A name that changes with whatever the part shows. */
export async function partName(post: string, content: unknown): Promise<string> {
  const bytes = new TextEncoder().encode(JSON.stringify(content));
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  const hex = [...digest.subarray(0, 12)].map((b) => b.toString(16).padStart(2, '0')).join('');
  return `${post}${MARK}${hex}`;
}
