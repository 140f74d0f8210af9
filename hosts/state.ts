import { mkdir, open, readFile, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { noticeSchema } from './board/notice.ts';
import { commentSchema } from './comments/comment.ts';
import { uploadSchema } from './channel/upload.ts';
import { messageSchema } from './mailbox/message.ts';
import { updateSchema } from './network/update.ts';
import type { Post } from './world/world.ts';

const faultsSchema = z.object({
  /** Milliseconds each answer is held back. */
  slow: z.number().int().min(0).max(120_000).default(0),
  /** One call in so many fails with 500 before anything is done; 0 is never. */
  failOneIn: z.number().int().min(0).default(0),
  /** One write in so many is done, and its answer lost; 0 is never. */
  loseOneIn: z.number().int().min(0).default(0),
  /** One call in so many is refused with 429; 0 is never. */
  busyOneIn: z.number().int().min(0).default(0),
  /** Seconds in the Retry-After of a 429. */
  retryAfter: z.number().int().min(0).default(2),
  /** The next so many parts of an upload are cut in the middle. */
  cutUploads: z.number().int().min(0).default(0),
  keyExpired: z.boolean().default(false),
  overQuota: z.boolean().default(false)
});
export type Faults = z.infer<typeof faultsSchema>;

const postSchema: z.ZodType<Post> = z.object({
  slug: z.string(),
  secret: z.string(),
  status: z.enum(['published', 'draft']),
  visibility: z.enum(['public', 'unlisted', 'private']),
  deleted: z.boolean(),
  created: z.number(),
  updated: z.number(),
  properties: z.record(z.string(), z.array(z.unknown()))
});

const stateSchema = z.object({
  /** The origin these hosts had when this was written; addresses in the posts begin with it. */
  origin: z.string(),
  /** When this world began, and how far its clock has been moved on; milliseconds. */
  began: z.number(),
  clockOffset: z.number(),
  faults: faultsSchema,
  /** Whether the uploads and posts of earlier years are in this world. */
  hasBackCatalogue: z.boolean().default(false),
  posts: z.array(postSchema),
  media: z.array(z.object({ name: z.string(), type: z.string() })),
  /** Titles that the control page has given to uploads. */
  titles: z.record(z.string(), z.object({ title: z.string(), at: z.number() })),
  /** What the control page has changed of uploads beside their titles. */
  edits: z
    .record(
      z.string(),
      z.object({
        description: z.string().optional(),
        /** A sentence at the end of what is said. */
        said: z.string().optional(),
        /** One cue of the captions in other words. */
        mended: z.object({ from: z.string(), to: z.string() }).optional(),
        visibility: z.enum(['public', 'unlisted', 'private']).optional(),
        /** Another moment to be shown to everybody. */
        published: z.number().optional(),
        at: z.number()
      })
    )
    .default({}),
  /** Videos that were sent to the channel by program. */
  uploads: z.array(uploadSchema).default([]),
  /** What was told at the networks. */
  updates: z.array(updateSchema).default([]),
  /** What came to the mailbox. */
  messages: z.array(messageSchema).default([]),
  /** What people wrote on the notice board. */
  notices: z.array(noticeSchema).default([]),
  /** What people wrote under uploads. */
  comments: z.array(commentSchema).default([])
});
export type State = z.infer<typeof stateSchema>;

/** Files that are too large for the state. */
const FOLDERS = ['media', 'uploads', 'mail'];

/**
 * The state of the hosts, kept in one file of a folder. Each change is on disk, whole, before
 * it is answered: written beside, flushed, then renamed over the old one.
 */
export class Store {
  #state: State;
  #writing: Promise<void> = Promise.resolve();

  private constructor(
    readonly folder: string,
    state: State,
    private readonly begin: () => State
  ) {
    this.#state = state;
  }

  /** Opens the state kept in a folder, moved to the origin the hosts have today. */
  static async open(folder: string, origin: string, begin: () => State): Promise<Store> {
    for (const name of FOLDERS) await mkdir(join(folder, name), { recursive: true });
    const kept = await readFile(join(folder, 'state.json'), 'utf8').catch(() => null);
    if (!kept) {
      const store = new Store(folder, begin(), begin);
      await store.change(() => {});
      return store;
    }
    const before = stateSchema.parse(JSON.parse(kept)).origin;
    const moved = stateSchema.parse(JSON.parse(kept.replaceAll(before, origin)));
    return new Store(folder, moved, begin);
  }

  get state(): Readonly<State> {
    return this.#state;
  }

  now(): number {
    return Date.now() + this.#state.clockOffset;
  }

  /** Applies one change and resolves when it is on disk. Changes are written in order. */
  change<T>(apply: (state: State) => T): Promise<T> {
    const done = this.#writing.then(async () => {
      const next = structuredClone(this.#state);
      const result = apply(next);
      await this.#write(next);
      this.#state = next;
      return result;
    });
    this.#writing = done.then(
      () => {},
      () => {}
    );
    return done;
  }

  async reset(): Promise<void> {
    for (const name of FOLDERS) {
      await rm(join(this.folder, name), { recursive: true, force: true });
      await mkdir(join(this.folder, name), { recursive: true });
    }
    await this.change((state) => Object.assign(state, this.begin()));
  }

  setFaults(faults: unknown): Promise<Faults> {
    const parsed = faultsSchema.parse(faults);
    return this.change((state) => (state.faults = parsed));
  }

  async #write(state: State): Promise<void> {
    const beside = join(this.folder, 'state.json.new');
    const file = await open(beside, 'w');
    try {
      await file.writeFile(JSON.stringify(state));
      await file.sync();
    } finally {
      await file.close();
    }
    await rename(beside, join(this.folder, 'state.json'));
  }
}

export const noFaults: Faults = faultsSchema.parse({});
