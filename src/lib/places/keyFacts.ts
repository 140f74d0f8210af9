import { z } from 'zod';

const factsSchema = z.object({
  scope: z.string().optional().catch(undefined),
  /** Seconds since 1970. */
  exp: z.number().positive().max(8.64e12).optional().catch(undefined)
});

/**
 * What a token endpoint tells of a key: its scopes and until when it is good (ISO 8601), each null where
 * it is not told. Field names as in token introspection (RFC 7662).
 */
export function readKeyFacts(body: unknown): { scope: string[] | null; keyEnds: string | null } {
  const { scope, exp } = factsSchema.catch({}).parse(body);
  return {
    scope: scope === undefined ? null : scope.split(/\s+/).filter(Boolean),
    keyEnds: exp === undefined ? null : new Date(exp * 1000).toISOString()
  };
}
