import { z } from 'zod';
import { absoluteAddress } from './address.ts';

/** What the actor document of a place says (ActivityStreams 2.0, with ActivityPub's endpoints). */
export interface ActorFacts {
  actor: string;
  url: string;
  title: string;
  about: string;
  outbox: string;
  limitsUrl: string;
  tagCounts: string;
  uploadMedia: string;
  tokenEndpoint: string;
}

const text = z
  .string()
  .nullish()
  .transform((t) => t ?? '');
const actorSchema = z.object({
  id: z.string(),
  type: z.string(),
  name: text,
  preferredUsername: text,
  summary: text,
  url: z
    .union([z.string(), z.array(z.string()).transform((all) => all[0] ?? '')])
    .nullish()
    .transform((url) => url ?? ''),
  outbox: z.string(),
  endpoints: z
    .object({ limits: text, tagCounts: text, uploadMedia: text, oauthTokenEndpoint: text })
    .partial()
    .nullish()
    .transform((endpoints) => endpoints ?? {})
});

/**
 * Reads an actor document. Its endpoints must be on its own origin: a key is sent there.
 * @returns null where it is none, or names other sites
 */
export function readActor(body: unknown, from: string): ActorFacts | null {
  const actor = actorSchema.safeParse(body).data;
  if (!actor) return null;
  const { origin } = new URL(from);
  const own = (address: string | undefined): string => {
    const url = address ? absoluteAddress(address, from) : '';
    return url && new URL(url).origin === origin ? url : '';
  };
  const [id, outbox] = [own(actor.id), own(actor.outbox)];
  if (!id || !outbox) return null;
  const plain = (t: string) =>
    t
      .replace(/<[^<>]*>/g, '')
      .replace(/\s+/g, ' ')
      .trim()
      .slice(0, 300);
  return {
    actor: id,
    outbox,
    url: own(actor.url) || id,
    title: plain(actor.name || actor.preferredUsername) || new URL(id).host,
    about: plain(actor.summary),
    limitsUrl: own(actor.endpoints.limits),
    tagCounts: own(actor.endpoints.tagCounts),
    uploadMedia: own(actor.endpoints.uploadMedia),
    tokenEndpoint: own(actor.endpoints.oauthTokenEndpoint)
  };
}
