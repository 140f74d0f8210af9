<script lang="ts">
  import '../app.css';
  import { page } from '$app/state';
  import { onMount, type Snippet } from 'svelte';
  import { countLanes } from '$lib/data/lanes.ts';
  import Deck from '$lib/ui/Deck.svelte';
  import Palette from '$lib/ui/Palette.svelte';
  import { isOfLaterVersion, onBlocked, onReplaced } from '$lib/data/versions.ts';
  import TopBar from '$lib/ui/TopBar.svelte';
  import UnlockKeys from '$lib/ui/UnlockKeys.svelte';
  import TroubleNote, { type Trouble } from '$lib/ui/TroubleNote.svelte';
  import { problemMessage } from '$lib/ui/messages.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { demoSchema, start } from '$lib/work/start.ts';
  import { keepPaired } from '$lib/work/pairing.ts';
  import { resumeWork } from '$lib/work/resumeWork.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';

  interface Props {
    data: { demo: unknown; rehearsal: string; hasPassword: boolean };
    children: Snippet;
  }
  let { data, children }: Props = $props();
  let palette = $state(false);
  let trouble = $state<Trouble | null>(null);

  onMount(() => {
    // Nothing is begun or taken up on a telephone that only came to post by hand.
    if (page.url.pathname === '/hand-off') return;
    // Without https a browser has no locks between tabs and encrypts no keys.
    if (!isSecureContext) {
      trouble = 'insecure';
      return;
    }
    const stopListening = onReplaced(() => (trouble = 'replaced'));
    const stopBlocked = onBlocked(() => (trouble = 'blocked'));
    const demo = data.demo ? demoSchema.parse(data.demo) : null;
    const begin = async () => {
      const isLater = await isOfLaterVersion();
      if (trouble === 'blocked') trouble = null;
      if (isLater) trouble = 'later';
      else await start(demo);
    };
    void attempt(begin).then(({ problem }) => {
      if (problem) deck.say(`The demo world could not be opened: ${problemMessage(problem).what}`);
    });
    // Another tab may be closed in the middle of its work: what it left is taken up from here.
    const stopPairing = keepPaired();
    const leading = new AbortController();
    let leads = false;
    const timer = setInterval(() => {
      if (trouble) return;
      void resumeWork();
      // Who has no lanes does not load what drives them.
      if (leads) return;
      void countLanes().then(async (count) => {
        if (count === 0 || leads) return;
        leads = true;
        (await import('$lib/work/lanes/lead.ts')).leadLanes(leading.signal, async (month) =>
          (await import('$lib/ui/reach/monthReport.ts')).buildReport(month)
        );
      });
    }, 5_000);
    return () => {
      clearInterval(timer);
      stopListening();
      stopBlocked();
      stopPairing();
      leading.abort();
    };
  });

  function onkeydown(event: KeyboardEvent) {
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
      event.preventDefault();
      palette = !palette;
    }
  }
</script>

<svelte:window {onkeydown} />

<!-- Whoever posts by hand, on a telephone, needs that page and nothing else. -->
{#if page.url.pathname === '/hand-off'}
  <main class="h-dvh">{@render children()}</main>
{:else if trouble === 'insecure' || trouble === 'later'}
  <main class="mx-auto max-w-xl p-6"><TroubleNote {trouble} /></main>
{:else}
  <div class="grid h-dvh grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto]">
    <div>
      {#if trouble}<div class="border-b border-line bg-sheet p-3">
          <TroubleNote {trouble} />
        </div>{/if}
      <TopBar onsearch={() => (palette = true)} />
      <UnlockKeys />
    </div>
    <main class="relative min-h-0 min-w-0 overflow-clip">{@render children()}</main>
    <Deck />
  </div>
{/if}
<Palette
  bind:open={palette}
  demo={data.demo ? demoSchema.parse(data.demo) : null}
  hasPassword={data.hasPassword}
/>
