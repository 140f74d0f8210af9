<script lang="ts">
  import UndoButtons from '$lib/ui/UndoButtons.svelte';
  import { tick } from 'svelte';
  import Volume2 from '@lucide/svelte/icons/volume-2';
  import { chartOf } from '$lib/core/narration/chart.ts';
  import {
    joinScene,
    sceneKindSchema,
    type Scene,
    type SceneKind
  } from '$lib/core/narration/scenes.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import { pieceLabels, sceneLabels, silentMessage } from '$lib/ui/boothMessages.ts';
  import { importPicture } from '$lib/work/ownMedia.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import ScenePictures from './ScenePictures.svelte';
  import OwnReading from './OwnReading.svelte';
  import type { Booth } from './boothState.svelte.ts';
  import type { Preview } from './preview.svelte.ts';

  interface Props {
    booth: Booth;
    preview: Preview;
    onread: (lineId: string) => void;
  }
  let { booth, preview, onread }: Props = $props();
  const scene = $derived(booth.scene);
  const index = $derived(booth.current);
  let message = $state('');

  /** Kinds that a scene may be shown as, with what it has. */
  function isPossible(kind: SceneKind, shown: Scene): boolean {
    const { picture, second, lines } = shown;
    if (kind === 'chart') return chartOf(shown) !== null;
    if (kind === 'table') return shown.columns > 1;
    if (kind === 'picture' || kind === 'beside') return picture !== null;
    if (kind === 'before-after') return second !== null;
    // Their words come from elsewhere than their lines.
    if (kind === 'map') return false;
    if (kind === 'question' || kind === 'comparison') return lines.length === 2;
    return true;
  }

  async function choosePicture(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    if (!file) return;
    const { id, problem } = await importPicture(file);
    message = problem ? `“${file.name}” is no picture that can be read. Nothing was changed.` : '';
    if (!id) return;
    const alt = file.name.replace(/\.\w+$/, '');
    const shown = booth.scene?.picture?.shown ?? 'fitted';
    const kind = booth.scene?.picture ? booth.scene.kind : 'beside';
    const picture = { url: id, alt, shown, credit: booth.scene?.picture?.credit ?? '' };
    booth.changeScene({ kind, picture });
  }
  async function add() {
    await booth.addScene('New sentence');
    await tick();
    document
      .querySelector<HTMLTextAreaElement>('[aria-label="Line 1, as it is written"]')
      ?.select();
  }
  function remove() {
    const said = scene?.lines
      .map((l) => l.text)
      .join(' ')
      .slice(0, 40);
    booth.change((scenes) => scenes.toSpliced(index, 1));
    deck.say(`The scene “${said}” is out. Undo brings it back.`);
  }
</script>

{#if scene}
  <section aria-label="Scene {index + 1}" class="flex flex-col gap-2">
    <div class="flex flex-wrap items-center gap-2 text-sm">
      <label class="flex items-center gap-1.5 font-semibold">
        Scene {index + 1}
        <select
          class="field w-auto font-normal"
          aria-label="Kind of scene"
          value={scene.kind}
          onchange={(event) => booth.showAs(sceneKindSchema.parse(event.currentTarget.value))}
        >
          {#each sceneKindSchema.options as kind (kind)}
            {#if kind === scene.kind || isPossible(kind, scene)}<option value={kind}
                >{sceneLabels[kind]}</option
              >{/if}
          {/each}
        </select>
      </label>
      <label class="flex items-center gap-1.5">
        Extra time
        <input
          class="field w-20"
          type="number"
          min="0"
          max="60"
          step="0.5"
          value={scene.hold}
          aria-label="Extra seconds after the last word"
          onchange={(event) =>
            booth.changeScene({
              hold: Math.min(60, Math.max(0, Number(event.currentTarget.value) || 0))
            })}
        /> s
      </label>
      {#if scene.lines.some((l) => l.source)}
        <label class="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={booth.isPinned}
            onchange={(event) => booth.pin(event.currentTarget.checked)}
          /> Keep in shorter cuts
        </label>
      {/if}
      <span class="ml-auto flex flex-wrap gap-1">
        <button
          class="plain btn btn-sm"
          disabled={index === 0}
          onclick={() => booth.change((s) => joinScene(s, index), index - 1)}
          >Join to the one before</button
        >
        <button
          class="plain btn btn-sm"
          disabled={scene.lines.length === 0 ||
            !/\S\s+\S/.test(scene.lines.map((l) => l.text).join(' '))}
          onclick={() => booth.split()}>Split</button
        >
        <button class="plain btn btn-sm" onclick={add}>Add a scene</button>
        <button
          class="plain btn btn-sm"
          disabled={(booth.narration?.scenes.length ?? 0) < 2}
          onclick={remove}>Remove</button
        >
        <UndoButtons autosave={booth.autosave} />
      </span>
    </div>
    {#each scene.lines as line, n (line.id)}
      {@const key = booth.said.speech.get(line.id)}
      {@const silent = booth.said.silent.get(line.id)}
      <div class="flex flex-col gap-1 border-l-2 border-line pl-2">
        <textarea
          class="field reading text-sm"
          rows={Math.min(4, Math.ceil(line.text.length / 70) || 1)}
          aria-label="Line {n + 1}, as it is written"
          value={line.text}
          oninput={(event) => booth.rewrite(line.id, event.currentTarget.value)}></textarea>
        <div class="flex items-start gap-2 text-sm">
          <button
            class="bare btn-icon shrink-0 btn-icon-sm"
            aria-label="Play line {n + 1}"
            disabled={!key}
            onclick={() => key && preview.say(key)}
            ><Volume2 aria-hidden="true" class="size-4" /></button
          >
          <input
            class="field text-sm text-quiet"
            aria-label="Line {n + 1}, as it is said"
            placeholder="Shown only, not said"
            value={line.spoken}
            oninput={(event) => booth.sayOtherwise(line.id, event.currentTarget.value)}
          />
        </div>
        {#if silent}<p class="text-sm" role="alert">{silentMessage(silent)}</p>{/if}
      </div>
    {/each}
    {#if scene.pieces.length > 0 && scene.kind !== 'map'}
      <fieldset class="flex flex-col gap-1 text-sm">
        <legend class="font-semibold">On screen</legend>
        <div class="flex flex-wrap gap-1.5">
          {#each scene.pieces as piece, n (n)}
            <input
              class="field w-auto min-w-24 flex-1 text-sm"
              aria-label="{pieceLabels[piece.role]} {n + 1} on screen"
              value={piece.text}
              oninput={(event) => booth.writePiece(n, event.currentTarget.value)}
            />
          {/each}
        </div>
        <button
          class="bare btn self-start btn-sm"
          onclick={() => booth.changeScene({ kind: 'statement', pieces: [] })}
          >Show the whole sentence</button
        >
      </fieldset>
    {:else if scene.kind === 'statement' && scene.lines.length > 0}
      <button class="bare btn self-start btn-sm" onclick={() => booth.showAs('statement')}
        >Show a few words of it</button
      >
    {/if}
    {#if scene.kind === 'title' || scene.kind === 'quote' || scene.kind === 'end'}
      <label class="flex flex-col gap-1 text-sm">
        {scene.kind === 'end'
          ? 'Address, also as a code to scan'
          : scene.kind === 'quote'
            ? 'Whose words they are'
            : 'Small line'}
        <input
          class="field"
          value={scene.small}
          oninput={(event) => booth.writeScene({ small: event.currentTarget.value })}
        />
      </label>
    {/if}
    <div class="flex flex-wrap items-center gap-x-3 gap-y-2 text-sm">
      {#if scene.picture}
        {@const picture = scene.picture}
        <Choice
          legend="How the picture is shown"
          options={[
            ['fitted', 'Whole'],
            ['moved', 'Filling the frame, slowly moved']
          ]}
          bind:value={
            () => picture.shown, (shown) => booth.changeScene({ picture: { ...picture, shown } })
          }
        />
        <label class="flex min-w-0 flex-1 items-center gap-1.5">
          What it shows
          <input
            class="field min-w-24"
            value={picture.alt}
            onchange={(event) =>
              booth.changeScene({ picture: { ...picture, alt: event.currentTarget.value.trim() } })}
          />
        </label>
        <label class="flex min-w-0 items-center gap-1.5">
          Credit
          <input
            class="field min-w-24"
            placeholder="Nobody to name"
            value={picture.credit}
            onchange={(event) =>
              booth.changeScene({
                picture: { ...picture, credit: event.currentTarget.value.trim() }
              })}
          />
        </label>
        {#if scene.lines.length > 0}
          <button
            class="plain btn btn-sm"
            onclick={() => booth.changeScene({ picture: null, second: null, kind: 'statement' })}
            >Without the picture</button
          >
        {/if}
      {/if}
      <label class="plain btn cursor-pointer btn-sm">
        {scene.picture ? 'Another picture' : 'Add a picture'}
        <input class="sr-only" type="file" accept="image/*" onchange={choosePicture} />
      </label>
      {#if scene.picture && booth.missing.includes(scene.picture.url)}
        <p role="alert">
          This picture cannot be had: <span class="figures break-all">{scene.picture.url}</span> Its text
          is shown instead.
        </p>
      {/if}
    </div>
    <div class="flex flex-wrap items-center gap-2 text-sm">
      {#if scene.recording}
        <span>Your own recording plays instead of the voice.</span>
        <button
          class="plain btn btn-sm"
          onclick={() => booth.changeScene({ recording: '' } satisfies Partial<Scene>)}
          >Use the voice again</button
        >
      {/if}
    </div>
    <ScenePictures {booth} />
    <OwnReading {booth} of="scene" {onread} />
    {#if message}<p class="text-sm" role="alert">{message}</p>{/if}
  </section>
{/if}
