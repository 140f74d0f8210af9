import { hasLinks, inOrder, type Comment } from '$lib/core/comments/comment.ts';
import type { Half, Twin } from '$lib/core/model/twin.ts';
import { plural } from '$lib/core/text/plural.ts';
import { allComments } from '$lib/data/comments.ts';
import { allPlaces } from '$lib/data/places.ts';
import { getItem } from '$lib/data/items.ts';
import { getTwins } from '$lib/data/twins.ts';
import { deck } from '$lib/ui/deck.svelte.ts';
import { live } from '$lib/ui/live.svelte.ts';
import { problemMessage } from '$lib/ui/messages.ts';
import { decideComments, readAllComments } from '$lib/work/comments.ts';
import { attempt, runTask } from '$lib/work/tasks.svelte.ts';

type Choice = Comment['choice'];

export interface ShownComment extends Comment {
  /** Who wrote what it answers, or empty. */
  answersTo: string;
  hasLinks: boolean;
}

/** What was written under one video. */
export interface Conversation {
  video: Half;
  post: Half;
  /** Whether its post can be changed from here. */
  canShow: boolean;
  comments: ShownComment[];
}

/** The comments on videos that have a post, and what is decided of them. */
export class CommentsState {
  shown = $state<Choice>('open');
  chosen = $state<ReadonlySet<string>>(new Set());
  readonly #all = live(() => readConversations);

  readonly isReady = $derived(this.#all.value !== undefined);
  readonly isOn = $derived(this.#all.value?.isOn ?? false);
  readonly counts = $derived.by(() => {
    const counts: Record<Choice, number> = { open: 0, bring: 0, leave: 0 };
    for (const { comments } of this.#all.value?.conversations ?? [])
      for (const { choice } of comments) counts[choice]++;
    return counts;
  });
  readonly conversations = $derived(
    (this.#all.value?.conversations ?? [])
      .map((one) => ({ ...one, comments: one.comments.filter((c) => c.choice === this.shown) }))
      .filter((one) => one.comments.length > 0)
  );
  readonly #shownComments = $derived(this.conversations.flatMap((one) => one.comments));
  readonly picked = $derived(this.#shownComments.filter((c) => this.chosen.has(c.id)));
  readonly areAllPicked = $derived(
    this.picked.length > 0 && this.picked.length === this.#shownComments.length
  );

  toggle(id: string): void {
    const next = new Set(this.chosen);
    if (!next.delete(id)) next.add(id);
    this.chosen = next;
  }

  toggleAll(): void {
    this.chosen = new Set(this.areAllPicked ? [] : this.#shownComments.map((c) => c.id));
  }

  async decide(comments: readonly Comment[], choice: Choice): Promise<void> {
    const { value: decided, problem } = await attempt(() => decideComments(comments, choice));
    this.chosen = new Set();
    if (problem) {
      const { what, todo } = problemMessage(problem);
      deck.say(`${what} ${todo}`);
      return;
    }
    void attempt(() => decided.cited);
    const count = plural(comments.length, 'comment', 'comments');
    const done: Record<Choice, string> = {
      bring: `Adding ${count} to the post.`,
      leave: `${count} left out.`,
      open: `${count} marked as new.`
    };
    deck.say(done[choice], {
      label: 'Undo',
      run: async () => {
        const { cited } = await decided.undo();
        void attempt(() => cited);
      }
    });
  }

  async read(): Promise<void> {
    const { value: failed, problem } = await attempt(() =>
      runTask('Reading comments', readAllComments)
    );
    if (problem) {
      const { what, todo } = problemMessage(problem);
      deck.say(`${what} ${todo}`);
    } else if (failed > 0) {
      const videos = plural(failed, 'video', 'videos');
      deck.say(`Comments on ${videos} could not be read. Refresh again in a while.`);
    } else deck.say('Comments are up to date.');
  }
}

/** Those with the newest comment first. */
async function readConversations(): Promise<{ isOn: boolean; conversations: Conversation[] }> {
  const [all, places] = await Promise.all([allComments(), allPlaces()]);
  const changeable = new Set(
    places.filter((p) => p.micropub && p.rights.includes('update')).map((p) => p.id)
  );
  const standing = all.filter((c) => !c.isGone);
  const byVideo = Map.groupBy(standing, (c) => c.videoId);
  const twins = await getTwins([...byVideo.keys()]);
  const conversations = await Promise.all(
    twins.map((twin) => toConversation(twin, byVideo.get(twin.id) ?? [], changeable))
  );
  return {
    isOn: places.some((p) => p.kind === 'channel' && (p.comments ?? 'off') !== 'off'),
    conversations: conversations
      .filter((one) => one !== null)
      .sort((a, b) => (newest(a) < newest(b) ? 1 : -1))
  };
}

async function toConversation(
  { video, post }: Twin,
  comments: readonly Comment[],
  changeable: ReadonlySet<string>
): Promise<Conversation | null> {
  if (!video || !post) return null;
  const authors = new Map(comments.map((c) => [c.nativeId, c.author]));
  return {
    video,
    post,
    canShow: changeable.has((await getItem(post.id))?.placeId ?? ''),
    comments: inOrder(comments).map((comment) => ({
      ...comment,
      answersTo: authors.get(comment.answers) ?? '',
      hasLinks: hasLinks(comment)
    }))
  };
}

const newest = ({ comments }: Conversation): string =>
  comments.reduce(
    (latest, { published }) => ((published ?? '') > latest ? (published ?? '') : latest),
    ''
  );
