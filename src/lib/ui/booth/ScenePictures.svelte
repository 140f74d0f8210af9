<script lang="ts">
  import type { Scene } from '$lib/core/narration/scenes.ts';
  import { keptFile } from '$lib/data/media.ts';
  import { pictureSourceMessage } from '$lib/ui/boothMessages.ts';
  import {
    findForScenes,
    keepFrame,
    withPicture,
    type FoundPicture,
    type PictureForScene
  } from '$lib/work/findPictures.ts';
  import type { Booth } from './boothState.svelte.ts';

  let { booth }: { booth: Booth } = $props();
  /** With its address here. */
  type Shown = PictureForScene & { shown: string };
  const MOST = 3;
  let found = $state.raw<Shown[]>([]);
  let isLooking = $state(false);
  const text = $derived(booth.scene?.lines.map((l) => l.text).join(' ') ?? '');
  const mayHave = $derived(
    booth.scene !== null &&
      !booth.scene.picture &&
      (booth.scene.kind === 'statement' || booth.scene.kind === 'list')
  );
  const gap = $derived(booth.gaps.find((g) => g.scenes.includes(booth.current)));

  /** Milliseconds after the last change in which nothing is looked for yet. */
  const WAIT = 300;
  const lookedFor = $derived(
    mayHave && text ? JSON.stringify([booth.current, text, gap?.scenes ?? null]) : ''
  );
  $effect(() => {
    found = [];
    isLooking = lookedFor !== '';
    if (lookedFor === '') return;
    let isWanted = true;
    const made: string[] = [];
    const timer = setTimeout(() => {
      void look(() => isWanted, made).finally(() => {
        if (isWanted) isLooking = false;
      });
    }, WAIT);
    return () => {
      isWanted = false;
      clearTimeout(timer);
      for (const url of made) URL.revokeObjectURL(url);
    };
  });

  /** For a scene within a gap, what fits any scene of the gap. */
  async function look(isWanted: () => boolean, made: string[]): Promise<void> {
    const { narration, current } = booth;
    if (!narration) return;
    const scenes = $state.snapshot(narration.scenes) as Scene[];
    const proposals = await findForScenes(
      scenes,
      gap?.scenes ?? [current],
      booth.post?.title ?? '',
      narration.options.language
    );
    if (!isWanted()) return;
    for (const proposal of proposals) {
      if (found.some((f) => f.picture.url === proposal.picture.url)) continue;
      const shown = await shownOf(proposal.picture, made);
      if (!isWanted() || found.length === MOST) return;
      if (shown) found = [...found, { ...proposal, shown }];
    }
  }

  /** An address at which it can be seen here; empty where it cannot be had. */
  async function shownOf(picture: FoundPicture, made: string[]): Promise<string> {
    if (picture.from === 'thumbnail') return picture.url;
    const file = (await keepFrame(picture)) ? await keptFile(picture.url) : null;
    if (!file) return '';
    const shown = URL.createObjectURL(file);
    made.push(shown);
    return shown;
  }

  function use({ picture, at }: Shown) {
    booth.change((scenes) => scenes.map((s, i) => (i === at ? withPicture(s, picture) : s)), at);
  }
</script>

{#if mayHave && (found.length > 0 || gap)}
  <section aria-label="Pictures for this scene" class="flex flex-col gap-1.5 text-sm">
    <h3 class="font-semibold">
      {#if gap}{Math.round(gap.to - gap.from)} s without a picture{:else}Pictures that fit{/if}
    </h3>
    {#if found.length > 0}
      <ul class="flex flex-wrap gap-2">
        {#each found as proposal (proposal.picture.url)}
          {@const { picture, shared, shown, at } = proposal}
          <li class="w-40">
            <button
              class="block w-full overflow-hidden rounded-base border border-edge text-left hover:border-ink"
              onclick={() => use(proposal)}
            >
              <img
                src={shown}
                alt={picture.alt}
                class="aspect-video w-full bg-black object-contain"
              />
              <span class="line-clamp-2 px-1.5 pt-1"
                >{at === booth.current ? '' : `Scene ${at + 1}: `}{picture.alt}</span
              >
              <span class="block px-1.5 pb-1 text-quiet"
                >{pictureSourceMessage(picture)}{#if shared.length > 0}: {shared
                    .slice(0, 3)
                    .join(', ')}{/if}</span
              >
            </button>
          </li>
        {/each}
      </ul>
    {:else if isLooking}
      <p role="status">Looking through your pictures and videos…</p>
    {:else}
      <p>
        None of your pictures and videos shows what is said here. Add a picture, or put some into
        <em>Your pictures</em>.
      </p>
    {/if}
  </section>
{/if}
