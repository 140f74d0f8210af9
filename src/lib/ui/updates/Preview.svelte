<script lang="ts">
  import type { UpdatePayload } from '$lib/core/delivery/payload.ts';
  import { graphemesOf } from '$lib/core/updates/limits.ts';
  import type { UpdateLimits } from '$lib/core/updates/placeLimits.ts';

  interface Props {
    payload: UpdatePayload;
    limits: UpdateLimits;
    /** As it stands in a stream, cut short, or the whole of it. */
    isCutShort: boolean;
    /** Where a kept file can be seen from this page. */
    addressOf: (url: string) => string;
  }
  let { payload, limits, isCutShort, addressOf }: Props = $props();
  const letters = $derived(graphemesOf(payload.text));
  const isLong = $derived(isCutShort && letters.length > limits.shownInStream);
  const text = $derived(
    isLong ? `${letters.slice(0, limits.shownInStream).join('')}…` : payload.text
  );
  let answer = $state<number | null>(null);
  const isRight = $derived(answer !== null && payload.options[answer]?.right === true);
  const name = $props.id();

  const LINK = /(https?:\/\/[^\s<]*[^\s<.,;:!?)])/g;
  const pieces = $derived(text.split(LINK).map((part, i) => ({ part, isLink: i % 2 === 1 })));
</script>

<div class="flex flex-col gap-2 rounded-base border border-line bg-canvas p-3 text-sm break-words">
  {#if payload.picture}
    <img
      src={addressOf(payload.picture.url)}
      alt={payload.picture.alt}
      class="w-full rounded-base object-cover"
      style={limits.pictureShape ? `aspect-ratio:${limits.pictureShape}` : undefined}
    />
  {/if}
  {#if payload.clip}
    <!-- svelte-ignore a11y_media_has_caption -->
    <video
      src={addressOf(payload.clip.url)}
      aria-label={payload.clip.alt}
      class="w-full rounded-base"
      controls
      preload="metadata"
    ></video>
  {/if}
  {#if payload.hasTitle}<p class="font-semibold">{payload.title}</p>{/if}
  <p class="whitespace-pre-line">
    {#each pieces as { part, isLink }, i (i)}{#if isLink}<span class="break-all underline"
          >{part}</span
        >{:else}{part}{/if}{/each}
  </p>
  {#if isLong}<p class="text-quiet">The rest is folded away here.</p>{/if}
  {#if payload.hashtags.length > 0}<p>{payload.hashtags.join(' ')}</p>{/if}
  {#if payload.form !== 'text'}
    <fieldset class="flex flex-col gap-1">
      <legend class="sr-only">Try it</legend>
      {#each payload.options as option, i (i)}
        <label class="flex items-center gap-2">
          <input type="radio" {name} checked={answer === i} onchange={() => (answer = i)} />
          {option.text || '…'}
          {#if answer !== null && payload.form === 'quiz' && option.right}<span
              class="font-semibold">right</span
            >{/if}
        </label>
      {/each}
    </fieldset>
    {#if answer !== null}
      <p role="status">
        {payload.form === 'poll'
          ? 'A vote is counted, and the others are shown.'
          : `${isRight ? 'Right.' : 'Not right.'} ${payload.why}`}
      </p>
    {/if}
  {/if}
  {#if payload.button}
    <p>
      <span class="inline-block rounded-base border border-edge px-2 py-0.5 font-semibold"
        >{payload.button.label}</span
      >
      <span class="figures break-all text-quiet">{payload.button.url}</span>
    </p>
  {/if}
</div>
