<script lang="ts">
  import { DateTime } from 'luxon';
  import type { Problem } from '$lib/core/model/place.ts';
  import { readMailbox } from '$lib/data/mailbox.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import {
    readSummarySetting,
    saveSummarySetting,
    sendSummary
  } from '$lib/work/lanes/daySummary.ts';
  import { attempt, runTask } from '$lib/work/tasks.svelte.ts';

  const mailbox = live(() => readMailbox);
  const setting = live(() => readSummarySetting);
  let problem = $state.raw<Problem | null>(null);
  let sent = $state('');

  async function send() {
    const done = await attempt(() =>
      runTask('Sending the summary of today', () => sendSummary(DateTime.now()))
    );
    problem = done.problem;
    sent = done.value ?? '';
  }
</script>

{#if mailbox.value && setting.value}
  {@const now = setting.value}
  <p class="flex flex-wrap items-center gap-3 text-sm">
    <label class="flex items-center gap-2">
      <input
        type="checkbox"
        checked={now.isWanted}
        onchange={(event) => saveSummarySetting({ ...now, isWanted: event.currentTarget.checked })}
      />
      Send me a summary of each day to {mailbox.value.address}
    </label>
    <button class="bare btn btn-sm" onclick={send}>Send that of today now</button>
    {#if sent}<a href={sent} target="_blank" rel="noreferrer">View message</a>{/if}
  </p>
  {#if problem}<ProblemNote {problem} />{/if}
{/if}
