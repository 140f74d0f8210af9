<script lang="ts">
  import type { Step } from '$lib/core/model/step.ts';
  import { stepsOf } from '$lib/data/steps.ts';
  import { dateTimeWords } from './words.ts';

  let { key, title }: { key: string; title: string } = $props();
  let steps = $state.raw<Step[] | null>(null);
  const DID: Record<Step['did'], string> = {
    find: 'Asked whether it is there',
    prepare: 'Sent its files',
    place: 'Placed it',
    replace: 'Replaced it',
    remove: 'Removed it'
  };
</script>

<details
  class="text-quiet"
  ontoggle={async (event) => {
    if (event.currentTarget.open) steps = await stepsOf(key);
  }}
>
  <summary>Steps<span class="sr-only"> of “{title}”</span></summary>
  {#if steps?.length === 0}<p>None are kept.</p>{/if}
  <ol class="list-decimal pl-5">
    {#each steps ?? [] as step (step.id)}
      <li>
        <span class="times">{dateTimeWords(step.at)}</span>
        {DID[step.did]}. Answer: <span class="break-all">{step.answered}</span>
        {#if step.did === 'place' || step.did === 'replace'}
          <details>
            <summary>What was sent</summary>
            <pre class="max-h-60 overflow-auto text-xs whitespace-pre-wrap">{step.sent}</pre>
          </details>
        {/if}
      </li>
    {/each}
  </ol>
</details>
