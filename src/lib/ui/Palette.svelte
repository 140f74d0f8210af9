<script lang="ts">
  import { goto } from '$app/navigation';
  import { findTwins } from '$lib/data/twins.ts';
  import type { Demo } from '$lib/work/start.ts';
  import { demoWithUndo, emptyWithUndo } from './startOver.ts';
  import { readNow } from './readNow.ts';
  import { mode } from './mode.svelte.ts';
  import { rowForKey } from '$lib/ui/listKeys.ts';
  import { standingLabels } from './messages.ts';

  interface Props {
    open: boolean;
    demo: Demo | null;
    /** Whether this server asks for a password. */
    hasPassword: boolean;
  }
  let { open = $bindable(), demo, hasPassword }: Props = $props();

  interface Entry {
    label: string;
    hint: string;
    run: () => unknown;
  }
  const MAX_SHOWN = 12;

  let dialog = $state<HTMLDialogElement>();
  let words = $state('');
  let at = $state(0);
  let found = $state.raw<Entry[]>([]);

  const commands: Entry[] = $derived([
    { label: 'Go to In step', hint: 'View', run: () => goto('/') },
    { label: 'Go to Updates', hint: 'View', run: () => goto('/updates') },
    { label: 'Go to Lanes', hint: 'View', run: () => goto('/lanes') },
    { label: 'Go to Calendar', hint: 'View', run: () => goto('/calendar') },
    { label: 'Go to Reach', hint: 'View', run: () => goto('/reach') },
    { label: 'Go to review', hint: 'View', run: () => goto('/review') },
    { label: 'Go to Places', hint: 'View', run: () => goto('/places') },
    { label: 'Go to comments', hint: 'View', run: () => goto('/comments') },
    { label: 'Go to list pages', hint: 'View', run: () => goto('/list-pages') },
    { label: 'Go to the glossary', hint: 'View', run: () => goto('/glossary') },
    { label: 'Go to the journal', hint: 'View', run: () => goto('/journal') },
    { label: 'Go to Archive', hint: 'View', run: () => goto('/archive') },
    { label: 'Connect a channel or blog', hint: 'Command', run: () => goto('/places') },
    { label: 'Refresh all places', hint: 'Command', run: () => readNow() },
    { label: 'Change between light and dark', hint: 'Command', run: () => mode.toggle() },
    {
      label: 'Start empty',
      hint: 'Clears this browser; can be undone for a day',
      run: () => emptyWithUndo().then(() => goto('/'))
    },
    ...(demo
      ? [
          {
            label: 'Start with the demo world',
            hint: 'Clears this browser; can be undone for a day',
            run: () => demoWithUndo(demo)
          }
        ]
      : []),
    ...(hasPassword ? [{ label: 'Sign out', hint: 'Command', run: signOut }] : [])
  ]);

  $effect(() => {
    if (open && !dialog?.open) {
      words = '';
      dialog?.showModal();
    } else if (!open) dialog?.close();
  });
  $effect(() => {
    const wanted = words.trim().toLowerCase();
    const fitting = commands.filter((c) => c.label.toLowerCase().includes(wanted));
    at = 0;
    found = fitting;
    if (!open || wanted.length < 2) return;
    void items(wanted).then((rows) => {
      if (words.trim().toLowerCase() === wanted) found = [...fitting, ...rows].slice(0, MAX_SHOWN);
    });
  });

  async function items(wanted: string): Promise<Entry[]> {
    const twins = await findTwins(wanted, MAX_SHOWN);
    return twins.map(({ video, post, standing }) => ({
      label: video?.title ?? post?.title ?? '',
      hint: standingLabels[standing],
      run: () => goto(video ? `/desk/${video.id}` : `/booth/${post?.id}`)
    }));
  }

  async function signOut() {
    await fetch('/leave', { method: 'POST' });
    location.assign('/enter');
  }

  function choose(entry: Entry | undefined) {
    if (!entry) return;
    open = false;
    entry.run();
  }

  function onkeydown(event: KeyboardEvent) {
    // Home and End move in the words that are searched for.
    const to = /^(Home|End)$/.test(event.key) ? null : rowForKey(event.key, at, found.length);
    if (to !== null) at = to;
    else if (event.key === 'Enter') choose(found[at]);
    else return;
    event.preventDefault();
  }
</script>

<dialog
  bind:this={dialog}
  onclose={() => (open = false)}
  aria-label="Search and commands"
  class="m-auto mt-[12vh] w-[36rem] max-w-[calc(100vw-1rem)] rounded-container border border-edge bg-sheet p-2 text-ink shadow-2xl backdrop:bg-black/40"
>
  <input
    class="field"
    role="combobox"
    aria-expanded="true"
    aria-controls="palette-list"
    aria-activedescendant={found[at] ? `palette-${at}` : undefined}
    aria-label="Search items and commands"
    placeholder="A title, or what you want to do"
    bind:value={words}
    {onkeydown}
  />
  <ul id="palette-list" role="listbox" aria-label="Found" class="mt-2 max-h-[50vh] overflow-y-auto">
    {#each found as entry, i (entry.hint + entry.label + i)}
      <!-- The keys are those of the field above. -->
      <!-- svelte-ignore a11y_click_events_have_key_events -->
      <li
        id="palette-{i}"
        role="option"
        aria-selected={i === at}
        class="flex cursor-pointer justify-between gap-3 rounded-base px-2 py-1.5 text-sm {i === at
          ? 'bg-marked'
          : ''}"
        onclick={() => choose(entry)}
      >
        <span class="truncate">{entry.label}</span>
        <span class="shrink-0 text-quiet">{entry.hint}</span>
      </li>
    {:else}
      <li
        class="px-2 py-3 text-sm text-quiet"
        role="option"
        aria-selected="false"
        aria-disabled="true"
      >
        Nothing found.
      </li>
    {/each}
  </ul>
</dialog>
