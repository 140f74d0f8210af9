<script lang="ts">
  interface Props {
    /** What the first press says, the one that does it, and the one that does not. */
    label: string;
    confirm: string;
    keep?: string;
    /** Of what, for those who cannot see where the button stands. */
    of?: string;
    /** What comes of it, shown with the question. */
    note?: string;
    onconfirm: () => unknown;
  }
  let { label, confirm, keep = 'Cancel', of = '', note = '', onconfirm }: Props = $props();
  let isAsking = $state(false);
</script>

{#if isAsking}
  {#if note}<p class="basis-full text-sm">{note}</p>{/if}
  <button
    class="strong btn btn-sm"
    onclick={() => {
      isAsking = false;
      void onconfirm();
    }}>{confirm}</button
  >
  <button class="bare btn btn-sm" onclick={() => (isAsking = false)}>{keep}</button>
{:else}
  <button class="bare btn btn-sm" onclick={() => (isAsking = true)}
    >{label}{#if of}<span class="sr-only"> {of}</span>{/if}</button
  >
{/if}
