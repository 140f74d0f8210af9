import { z } from 'zod';
import { understood } from './understood.ts';

const factsSchema = z.object({
  scope: z.string().nullish(),
  /** Seconds since 1970. */
  exp: z.number().positive().max(8.64e12).nullish()
});

/**
 * What a token endpoint says of a key: its scopes and until when it is valid (ISO 8601), each null
 * where it does not say. Field names as in token introspection (RFC 7662).
 * @param url the endpoint
 * @throws PlaceError `not-understood`
 */
export function readKeyFacts(
  body: unknown,
  url: string
): { scope: string[] | null; keyEnds: string | null } {
  const { scope, exp } = understood(factsSchema, body, url);
  return {
    scope: scope?.split(/\s+/).filter(Boolean) ?? null,
    keyEnds: exp ? new Date(exp * 1000).toISOString() : null
  };
}
