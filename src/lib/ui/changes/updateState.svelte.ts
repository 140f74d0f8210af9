import type { Problem } from '$lib/core/model/place.ts';
import type { Twin } from '$lib/core/model/twin.ts';
import {
  takeChoices,
  withoutConflicts,
  type Choice,
  type PostChange
} from '$lib/core/twins/merge/mergePosts.ts';
import { getTwin } from '$lib/data/twins.ts';
import { deck } from '$lib/ui/deck.svelte.ts';
import { plural } from '$lib/ui/messages.ts';
import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
import { planTwinUpdate } from '$lib/work/planTwinUpdate.ts';
import type { NoUpdate, TwinUpdate } from '$lib/work/twinUpdate.ts';
import { talkWorker } from '$lib/workers/talk.ts';

/** What updating the half of one twin that was made here would change, and what is chosen of it. */
export class UpdateState {
  twin = $state.raw<Twin | null>(null);
  plan = $state.raw<TwinUpdate | null>(null);
  /** Why there is no plan. */
  why = $state<NoUpdate | 'unknown' | null>(null);
  problem = $state<Problem | null>(null);
  isReading = $state(true);
  isSending = $state(false);
  choices = $state.raw<ReadonlyMap<number, Choice>>(new Map());

  readonly changes: readonly PostChange[] = $derived(this.plan?.merge.changes ?? []);
  readonly conflicts = $derived(this.changes.filter((change) => change.isConflict).length);
  readonly taken = $derived([...this.choices.values()].filter((c) => c !== 'mine').length);
  readonly updated = $derived(this.plan && takeChoices(this.plan.merge, this.choices));

  async open(id: string): Promise<void> {
    this.isReading = true;
    this.problem = null;
    this.why = null;
    this.plan = null;
    const twin = (await getTwin(id)) ?? null;
    this.twin = twin;
    if (!twin?.video || !twin.post) {
      this.why = twin ? 'gone' : 'unknown';
      this.isReading = false;
      return;
    }
    const done = await attempt(() =>
      runTask(`Comparing “${twin.post?.title ?? ''}”`, (signal) =>
        planTwinUpdate(twin, talkWorker(), signal)
      )
    );
    this.problem = done.problem;
    if (typeof done.value === 'string') this.why = done.value;
    else this.plan = done.value;
    this.takeFree();
    this.isReading = false;
  }

  /** Chooses all that does not conflict; conflicts stay as they were decided. */
  takeFree(): void {
    if (!this.plan) return;
    const free = withoutConflicts(this.plan.merge);
    const decided = [...this.choices].filter(([i]) => this.changes[i]?.isConflict);
    this.choices = new Map([...decided, ...free]);
  }

  takeNone(): void {
    this.choices = new Map();
  }

  choose(index: number, choice: Choice): void {
    this.choices = new Map([...this.choices, [index, choice]]);
  }

  /** @returns whether the post was updated */
  async send(): Promise<boolean> {
    const { plan, choices, taken } = this;
    if (!plan) return false;
    this.isSending = true;
    const title = plan.merge.mine.title;
    const done = await attempt(() => runTask(`Updating “${title}”`, () => plan.apply(choices)));
    this.isSending = false;
    this.problem = done.problem;
    if (!done.value) return false;
    const { isSent, undo } = done.value;
    const changes = plural(taken, 'change', 'changes');
    const said = isSent
      ? `“${title}” updated with ${changes}.`
      : `“${title}” could not be sent yet. Trying again in a moment.`;
    deck.say(said, { label: 'Undo', run: undo });
    return true;
  }
}
