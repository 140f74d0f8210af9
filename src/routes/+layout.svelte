<script lang="ts">
  import '../app.css';
  import { page } from '$app/state';
  import { onMount, type Snippet } from 'svelte';
  import { countLanes } from '$lib/data/lanes.ts';
  import Deck from '$lib/ui/Deck.svelte';
  import Palette from '$lib/ui/Palette.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  import { problemMessage } from '$lib/ui/messages.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { demoSchema, start } from '$lib/work/start.ts';
  import { keepPaired } from '$lib/work/pairing.ts';
  import { resumeWork } from '$lib/work/resumeWork.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';

  let { data, children }: { data: { demo: unknown; rehearsal: string }; children: Snippet } =
    $props();
  let palette = $state(false);
  let isInsecure = $state(false);

  onMount(() => {
    // Nothing is begun or taken up on a telephone that only came to post by hand.
    if (page.url.pathname === '/hand-off') return;
    // Without https a browser has no locks between tabs and encrypts no keys.
    isInsecure = !isSecureContext;
    if (isInsecure) return;
    const demo = data.demo ? demoSchema.parse(data.demo) : null;
    void attempt(() => start(demo)).then(({ problem }) => {
      if (problem) deck.say(`The demo world could not be opened: ${problemMessage(problem).what}`);
    });
    // Another tab may be closed in the middle of its work: what it left is taken up from here.
    const stopPairing = keepPaired();
    const leading = new AbortController();
    let leads = false;
    const timer = setInterval(() => {
      void resumeWork();
      // Who has no lanes does not load what drives them.
      if (leads) return;
      void countLanes().then(async (count) => {
        if (count === 0 || leads) return;
        leads = true;
        (await import('$lib/work/lanes/lead.ts')).leadLanes(leading.signal);
      });
    }, 5_000);
    return () => {
      clearInterval(timer);
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
{:else if isInsecure}
  <main class="mx-auto max-w-xl p-6">
    <p role="alert">
      <strong>This page was opened over plain http.</strong> Swift Twin needs https, or an address of
      this machine such as http://127.0.0.1: without it a browser can neither encrypt your keys nor keep
      two tabs from doing the same work. Nothing was read or changed.
    </p>
  </main>
{:else}
  <div class="grid h-dvh grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto]">
    <TopBar onsearch={() => (palette = true)} />
    <main class="relative min-h-0 min-w-0 overflow-clip">{@render children()}</main>
    <Deck />
  </div>
{/if}
<Palette bind:open={palette} demo={data.demo ? demoSchema.parse(data.demo) : null} />
