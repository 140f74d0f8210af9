<script lang="ts">
  interface Props {
    label?: string;
    /** Local date and time, as a date field has it. */
    value: string;
  }
  let { label = 'Date and time (your time zone)', value = $bindable() }: Props = $props();
</script>

<label class="flex flex-col gap-1 text-sm font-semibold">
  {label}
  <input class="field font-normal" type="datetime-local" bind:value />
</label>
