<script lang="ts">
  import { DateTime } from 'luxon';
  import { clock } from './clock.svelte.ts';
  import { formatDateTime, zoneName } from './messages.ts';

  interface Props {
    label?: string;
    /** Local date and time, as a date field has it. */
    value: string;
    /** Whether a date that has passed is meant; without it none is asked about. */
    isPastMeant?: boolean;
  }
  let { label = 'Date and time', value = $bindable(), isPastMeant = $bindable() }: Props = $props();
  const now = clock(() => value !== '');
  const moment = $derived(DateTime.fromISO(value));
  const isPast = $derived(moment.isValid && moment.toMillis() < now.value);
</script>

<div class="flex flex-col gap-1 text-sm">
  <label class="flex flex-col gap-1 font-semibold">
    {label} ({zoneName()})
    <input class="field font-normal" type="datetime-local" bind:value />
  </label>
  {#if moment.isValid}
    <p class="text-quiet">
      {formatDateTime(moment.toISO() ?? '')}{isPast ? ', which has passed' : ''}
    </p>
  {/if}
  {#if isPast && isPastMeant !== undefined}
    <label class="flex items-center gap-2">
      <input type="checkbox" bind:checked={isPastMeant} /> Backdate the post to this date
    </label>
  {/if}
</div>
