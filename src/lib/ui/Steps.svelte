<script lang="ts">
  import type { Step } from '$lib/core/model/step.ts';
  import { stepsOf } from '$lib/data/steps.ts';
  import { formatDateTime } from './messages.ts';

  let { key, title }: { key: string; title: string } = $props();
  let steps = $state.raw<Step[] | null>(null);
  const DID: Record<Step['did'], string> = {
    find: 'Checked whether it is there',
    prepare: 'Sent its files',
    publish: 'Published it',
    update: 'Updated it',
    remove: 'Deleted it'
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
        <span class="figures">{formatDateTime(step.at)}</span>
        {DID[step.did]}. Answer: <span class="break-all">{step.answered}</span>
        {#if step.did === 'publish' || step.did === 'update'}
          <details>
            <summary>What was sent</summary>
            <pre class="max-h-60 overflow-auto text-xs whitespace-pre-wrap">{step.sent}</pre>
          </details>
        {/if}
      </li>
    {/each}
  </ol>
</details>
