<script lang="ts">
  import CalendarClock from '@lucide/svelte/icons/calendar-clock';
  import Clapperboard from '@lucide/svelte/icons/clapperboard';
  import FileText from '@lucide/svelte/icons/file-text';
  import Hourglass from '@lucide/svelte/icons/hourglass';
  import MessageSquare from '@lucide/svelte/icons/message-square';
  import Pin from '@lucide/svelte/icons/pin';
  import Send from '@lucide/svelte/icons/send';
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
  import type { CalendarEntry } from '$lib/core/calendar/calendarEntry.ts';
  import type { Calendar } from './calendarState.svelte.ts';
  import { entryName, timeOf } from './calendarMessages.ts';

  let { entry, calendar }: { entry: CalendarEntry; calendar: Calendar } = $props();
  let button = $state<HTMLButtonElement>();
  const KINDS = { post: FileText, video: Clapperboard, update: MessageSquare };
  const EDGES = {
    post: 'border-l-post',
    video: 'border-l-video',
    update: 'border-l-edge border-dashed'
  };
  const STATES = {
    published: null,
    scheduled: CalendarClock,
    planned: Hourglass,
    sending: Send,
    failed: TriangleAlert
  };
  const Kind = $derived(KINDS[entry.kind]);
  const State = $derived(entry.isPinned ? Pin : STATES[entry.state]);
  const name = $derived(entryName(entry, calendar.placeOf(entry)));

  $effect(() => {
    if (button && calendar.takeMoved(entry)) button.focus();
  });

  function press(event: KeyboardEvent) {
    if (!event.shiftKey || !entry.moves) return;
    const to = calendar.keyTarget(entry, event.key);
    if (to === null) return;
    event.preventDefault();
    void calendar.move(entry, to);
  }
</script>

<!-- Its padding is in the span: a drag begins on whatever is no button. -->
<button
  bind:this={button}
  class="block w-full min-w-0 rounded-base border border-l-4 text-left text-xs {EDGES[
    entry.kind
  ]} {entry.state === 'published'
    ? 'border-y-transparent border-r-transparent bg-canvas'
    : 'border-y-line border-r-line bg-sheet'} hover:border-ink"
  aria-label={name}
  title={name}
  aria-keyshortcuts={entry.moves
    ? 'Shift+ArrowLeft Shift+ArrowRight Shift+ArrowUp Shift+ArrowDown'
    : undefined}
  onclick={() => calendar.open(entry)}
  onkeydown={press}
>
  <span class="flex min-w-0 items-center gap-1 px-1 py-px {entry.moves ? 'cursor-grab' : ''}">
    <Kind class="size-3 shrink-0" aria-hidden="true" />
    <span class="times shrink-0">{timeOf(entry.at)}</span>
    <span class="truncate {entry.state === 'published' ? 'text-quiet' : ''}">{entry.title}</span>
    {#if State}<State class="ml-auto size-3 shrink-0" aria-hidden="true" />{/if}
  </span>
</button>
