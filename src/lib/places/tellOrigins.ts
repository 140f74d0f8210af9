import { z } from 'zod';

const answerSchema = z.object({ wereKnown: z.boolean() });

/**
 * Tells our server which origins are linked, for the policy of its pages. It stands by itself, as the
 * first page needs it and no place.
 * @returns whether it knew them all; if not, pages that are loaded from now on may frame them
 */
export async function tellOrigins(origins: readonly string[]): Promise<boolean> {
  try {
    const answer = await fetch('/api/origins', {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(origins)
    });
    return answerSchema.parse(await answer.json()).wereKnown;
  } catch {
    // Without a server a page that is loaded anew would know no more, and work goes on without.
    return true;
  }
}
