import type { LinkProposal } from '$lib/core/links/propose.ts';
import type { Problem } from '$lib/core/model/place.ts';
import { plural } from '$lib/core/text/plural.ts';
import { follow } from '$lib/data/live.ts';
import { allGlossary, rememberLinks } from '$lib/data/glossary.ts';
import { deck } from '$lib/ui/deck.svelte.ts';
import { problemMessage } from '$lib/ui/messages.ts';
import { soon } from '$lib/ui/soon.svelte.ts';
import { findLinks } from '$lib/work/links.ts';
import { attempt } from '$lib/work/tasks.svelte.ts';
import { talkWorker } from '$lib/workers/talk.ts';
import type { Desk } from './deskState.svelte.ts';

const nameOf = ({ url, paragraph, from }: LinkProposal): string => `${url} ${paragraph} ${from}`;

/** Links that the text on the desk may have, and which of them are to go in. */
export class Links {
  found = $state.raw<LinkProposal[] | null>(null);
  /** Why none could be looked for. */
  problem = $state.raw<Problem | null>(null);
  /** What the user chose otherwise than proposed. */
  #turned = $state<ReadonlySet<string>>(new Set());
  #glossary = $state.raw<unknown>(null);
  readonly chosen = $derived((this.found ?? []).filter((one) => this.isChosen(one)));

  constructor(private readonly desk: Desk) {}

  isChosen(one: LinkProposal): boolean {
    return one.isClear !== this.#turned.has(nameOf(one));
  }

  turn(one: LinkProposal): void {
    const turned = new Set(this.#turned);
    if (!turned.delete(nameOf(one))) turned.add(nameOf(one));
    this.#turned = turned;
  }

  /** Looks for links once the writing pauses; to be called while the component is set up. */
  follow(): void {
    $effect(() =>
      follow(
        allGlossary,
        (entries) => (this.#glossary = entries),
        (error) => console.error(error)
      )
    );
    soon(
      700,
      () => {
        void this.#glossary;
        return this.desk.isLoaded ? this.#html() : null;
      },
      (html) => this.#find(html)
    );
  }

  #html(): string {
    return this.desk.edited?.html ?? this.desk.post?.marked ?? '';
  }

  async #find(html: string): Promise<void> {
    const { video, blogId } = this.desk;
    if (!video) return;
    const of = { html, videoId: video.id, language: video.language };
    const { value, problem } = await attempt(() => findLinks(of, blogId));
    if (html !== this.#html()) return;
    this.found = value;
    this.problem = problem;
  }

  /** Puts the chosen links into the text. */
  async add(): Promise<void> {
    const { chosen, desk } = this;
    const { rewrite } = desk;
    if (!rewrite || chosen.length === 0) return;
    const language = desk.video?.language ?? '';
    let added = 0;
    const { problem } = await attempt(async () => {
      await rewrite(async (html) => {
        const linked = await talkWorker().addLinks(html, chosen, language);
        added = linked.added;
        return linked.html;
      });
      await this.#remember(chosen, true);
    });
    if (problem) {
      const { what, todo } = problemMessage(problem);
      deck.say(`${what} ${todo}`);
    } else deck.say(`${plural(added, 'link', 'links')} added. Undo takes them out again.`);
  }

  /** Not here: a word in company like this is no longer proposed as clear. */
  async decline(one: LinkProposal): Promise<void> {
    await this.#remember([one], false);
    this.found = (this.found ?? []).filter((other) => other !== one);
  }

  #remember(some: readonly LinkProposal[], isLinked: boolean): Promise<void> {
    const decided = some.map(({ word, url, sentence }) => ({ word, url, sentence, isLinked }));
    return rememberLinks(decided, new Date().toISOString());
  }
}
