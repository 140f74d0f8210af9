import type { ListPage } from '$lib/core/listPages/listPage.ts';
import type { Place } from '$lib/core/model/place.ts';
import { getListPage, updateListPage } from '$lib/data/listPages.ts';
import { playlistsOf } from '$lib/data/playlists.ts';
import type { Playlist } from '$lib/core/model/playlist.ts';
import { allPlaces, placesOfKind } from '$lib/data/places.ts';
import { tagsInUse } from '$lib/data/items.ts';
import { Autosave } from '$lib/ui/autosave.svelte.ts';
import { deck } from '$lib/ui/deck.svelte.ts';
import { plural, problemMessage } from '$lib/ui/messages.ts';
import { soon } from '$lib/ui/soon.svelte.ts';
import { makeListPage, publishListPage, type MadePage } from '$lib/work/listPages.ts';
import { findPlaylists } from '$lib/work/playlists.ts';
import { attempt, runTask } from '$lib/work/tasks.svelte.ts';

/** What the user sets; the rest is learned when it is published. */
type Fields = Omit<
  ListPage,
  'id' | 'key' | 'problem' | 'sentItems' | 'made' | 'created' | 'changed'
>;

/** Milliseconds in which further changes are waited for before the preview is made anew. */
const SOON = 150;

/** One list page in its editor. */
export class ListPageState {
  page = $state<ListPage | null>(null);
  made = $state.raw<MadePage | null>(null);
  places = $state.raw<Place[]>([]);
  readonly blogs = $derived(this.places.filter(({ kind }) => kind === 'blog'));
  playlists = $state.raw<Playlist[]>([]);
  tags = $state.raw<string[]>([]);
  isMissing = $state(false);
  readonly blog = $derived(this.blogs.find((blog) => blog.id === this.page?.placeId) ?? null);

  readonly autosave = new Autosave<Fields>({
    name: () => (this.page ? `list-pages/${this.page.id}` : ''),
    read: () => this.page && fieldsOf($state.snapshot(this.page) as ListPage),
    take: (fields) => {
      if (this.page) Object.assign(this.page, structuredClone(fields));
    },
    stored: async () => {
      const stored = await getListPage(this.page?.id ?? '');
      return stored ? fieldsOf(stored) : null;
    },
    update: (merge) =>
      updateListPage(this.page?.id ?? '', (stored) => ({
        ...stored,
        ...merge(fieldsOf(stored)),
        changed: new Date().toISOString()
      }))
  });

  async open(id: string): Promise<void> {
    const [page, places, tags] = await Promise.all([getListPage(id), allPlaces(), tagsInUse()]);
    this.places = places;
    this.tags = tags;
    this.playlists = await playlistsOf(places.map((place) => place.id));
    this.isMissing = page === undefined;
    if (!page) return;
    this.page = page;
    this.autosave.begin();
  }

  /** The playlists that the pages of the channels name. */
  async findPlaylists(): Promise<void> {
    const channels = await placesOfKind('channel');
    const found = await Promise.all(channels.map((one) => attempt(() => findPlaylists(one))));
    const failed = found.find(({ problem }) => problem)?.problem;
    if (failed) say(problemMessage(failed));
    this.playlists = await playlistsOf(channels.map((channel) => channel.id));
  }

  /** Saves, and makes the preview anew; to be called while the component is set up. */
  follow(): void {
    this.autosave.follow(() => this.page !== null);
    soon(
      SOON,
      () =>
        this.page && this.blog
          ? { page: $state.snapshot(this.page) as ListPage, blog: this.blog }
          : null,
      async ({ page, blog }) => {
        const { value, problem } = await attempt(() => makeListPage(page, blog));
        if (problem) say(problemMessage(problem));
        else this.made = value;
      }
    );
  }

  async publish(isReplaced = false): Promise<void> {
    const { page } = this;
    if (!page) return;
    await this.autosave.saveNow();
    const stored = await getListPage(page.id);
    if (!stored) return;
    const done = await attempt(() =>
      runTask(`Publishing “${page.title}”`, () => publishListPage(stored, isReplaced))
    );
    if (done.problem) return say(problemMessage(done.problem));
    if (done.value === 0) return;
    deck.say(
      `${plural(done.value, 'place was', 'places were')} edited at the blog and stayed as written there.`,
      { label: 'Replace them', run: () => this.publish(true) }
    );
  }
}

const say = ({ what, todo }: { what: string; todo: string }): void => deck.say(`${what} ${todo}`);

function fieldsOf(page: ListPage): Fields {
  const {
    id: _id,
    key: _key,
    problem: _problem,
    sentItems: _items,
    made: _made,
    created: _created,
    changed: _changed,
    ...fields
  } = page;
  return fields;
}
