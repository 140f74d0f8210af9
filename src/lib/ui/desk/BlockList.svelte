<script lang="ts">
  import ArrowDown from '@lucide/svelte/icons/arrow-down';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import GripVertical from '@lucide/svelte/icons/grip-vertical';
  import { Switch } from '@skeletonlabs/skeleton-svelte';
  import { tick } from 'svelte';
  import { dragHandle, dragHandleZone, setDebugMode } from 'svelte-dnd-action';
  import type { Block } from '$lib/core/article/template/template.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { blockLabels, emptyMessage } from '$lib/ui/messages.ts';
  import SafeHtml from './SafeHtml.svelte';
  import TemplateField from './TemplateField.svelte';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
  setDebugMode(false);

  const TEXTS: readonly Block['kind'][] = ['lead', 'text', 'credit', 'closing'];
  const HEADED: readonly Block['kind'][] = [
    ...([
      'summary',
      'takeaways',
      'chapters',
      'article',
      'transcript',
      'description',
      'text'
    ] as const)
  ];
  const partOf = (block: Block) => desk.post?.parts.find((part) => part.blockId === block.id);
  const flipDurationMs = matchMedia('(prefers-reduced-motion: reduce)').matches ? 0 : 120;

  /** The blocks while one is dragged, with its placeholder: of that nothing is kept. */
  let dragged = $state.raw<Block[] | null>(null);
  const blocks = $derived(dragged ?? desk.template.blocks);

  function drop(dropped: Block[]) {
    dragged = null;
    desk.autosave.change(() => (desk.template.blocks = dropped));
  }

  /** A moved element loses the focus; the button keeps it, or its neighbour where that has come to an end. */
  async function move(index: number, by: number, button: HTMLElement) {
    const blocks = [...desk.template.blocks];
    const [block] = blocks.splice(index, 1);
    if (!block) return;
    blocks.splice(index + by, 0, block);
    desk.autosave.change(() => (desk.template.blocks = blocks));
    deck.say(`${blockLabels[block.kind]} is part ${index + by + 1} of ${blocks.length} now.`);
    await tick();
    const other = by < 0 ? button.nextElementSibling : button.previousElementSibling;
    const next = button.matches(':disabled') ? other : button;
    if (next instanceof HTMLElement) next.focus();
  }
</script>

<ol
  class="flex flex-col gap-2"
  aria-label="Parts of the post"
  use:dragHandleZone={{
    items: blocks,
    flipDurationMs,
    dropTargetStyle: {},
    zoneItemTabIndex: -1
  }}
  onconsider={(event) => (dragged = event.detail.items)}
  onfinalize={(event) => drop(event.detail.items)}
>
  {#each blocks as block, i (block.id)}
    {@const part = partOf(block)}
    <li class="rounded-container border border-line bg-sheet" aria-label={blockLabels[block.kind]}>
      <header class="flex items-center gap-2 px-2 py-1">
        <span
          use:dragHandle
          aria-label="Drag {blockLabels[block.kind]}"
          class="cursor-grab text-quiet"
        >
          <GripVertical class="size-4" aria-hidden="true" />
        </span>
        <h2 class="text-sm font-semibold {block.on ? '' : 'text-quiet'}">
          {blockLabels[block.kind]}
        </h2>
        {#if part?.empty}<span class="truncate text-sm text-quiet"
            >empty: {emptyMessage(part.empty)}</span
          >{/if}
        <span class="ml-auto flex items-center gap-1">
          <button
            class="bare btn-icon btn-icon-sm"
            aria-label="Move {blockLabels[block.kind]} up"
            disabled={i === 0}
            onclick={(event) => move(i, -1, event.currentTarget)}
            ><ArrowUp aria-hidden="true" /></button
          >
          <button
            class="bare btn-icon btn-icon-sm"
            aria-label="Move {blockLabels[block.kind]} down"
            disabled={i === blocks.length - 1}
            onclick={(event) => move(i, 1, event.currentTarget)}
            ><ArrowDown aria-hidden="true" /></button
          >
          <Switch
            checked={block.on}
            onCheckedChange={({ checked }) => (block.on = checked)}
            class="flex items-center"
          >
            <Switch.Control
              class="flex h-5 w-9 items-center rounded-full border border-edge bg-canvas p-0.5 data-[state=checked]:bg-ink"
            >
              <Switch.Thumb
                class="block size-3.5 rounded-full bg-ink transition-transform data-[state=checked]:translate-x-4 data-[state=checked]:bg-canvas"
              />
            </Switch.Control>
            <Switch.Label class="sr-only">{blockLabels[block.kind]} in the post</Switch.Label>
            <Switch.HiddenInput />
          </Switch>
        </span>
      </header>
      {#if block.on}
        <div class="flex flex-col gap-3 border-t border-line px-3 py-2">
          {#if HEADED.includes(block.kind)}
            <TemplateField
              label="Heading of {blockLabels[block.kind].toLowerCase()}"
              bind:value={block.heading}
              fields={desk.fields}
              placeholder="None"
            />
          {/if}
          {#if TEXTS.includes(block.kind)}
            <TemplateField
              label="Wording of {blockLabels[block.kind].toLowerCase()}"
              bind:value={block.text}
              fields={desk.fields}
              rows={3}
            />
          {/if}
          {#if part && !part.empty}
            <SafeHtml
              html={part.html}
              label="{blockLabels[block.kind]}, as it will read"
              language={desk.video?.language ?? ''}
            />
          {/if}
        </div>
      {/if}
    </li>
  {/each}
</ol>
