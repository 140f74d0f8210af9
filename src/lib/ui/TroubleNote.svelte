<script lang="ts" module>
  /** Why this page does nothing, or nothing any more. */
  export type Trouble = 'insecure' | 'later' | 'replaced' | 'blocked';

  const WORDS: Record<Trouble, { what: string; todo: string }> = {
    insecure: {
      what: 'This page was opened over plain http.',
      todo: 'Swift Twin needs https, or an address of this machine such as http://127.0.0.1: without it a browser can neither encrypt your keys nor keep two tabs from doing the same work. Nothing was read or changed.'
    },
    later: {
      what: 'A later version of Swift Twin has kept its data in this browser.',
      todo: 'This one would not understand all of it, so nothing was read or changed. Use the later version, or another browser profile for this one.'
    },
    blocked: {
      what: 'Another tab holds on to the data of an earlier version.',
      todo: 'Close the other tabs of Swift Twin, or load them anew: this one goes on by itself then. Nothing was read or changed.'
    },
    replaced: {
      what: 'Another tab has brought in a new version of Swift Twin.',
      todo: 'Load this page anew to go on. What you typed here is kept.'
    }
  };
</script>

<script lang="ts">
  let { trouble }: { trouble: Trouble } = $props();
  const words = $derived(WORDS[trouble]);
</script>

<div role="alert" class="flex flex-wrap items-center gap-3">
  <p><strong>{words.what}</strong> {words.todo}</p>
  {#if trouble === 'replaced'}
    <button class="strong btn btn-sm" onclick={() => location.reload()}>Load anew</button>
  {/if}
</div>
