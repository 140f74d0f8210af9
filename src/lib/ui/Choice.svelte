<script lang="ts" generics="T">
  interface Props {
    legend: string;
    /** Where the legend stands: beside the options, above them, or read aloud only. */
    shown?: 'beside' | 'above' | 'aloud';
    /** A note is said more quietly after its label. */
    options: readonly (readonly [value: T, label: string, note?: string])[];
    /** One below the other. */
    isStacked?: boolean;
    value: T;
    disabled?: (value: T) => boolean;
    onchange?: () => void;
  }
  let {
    legend,
    shown = 'aloud',
    options,
    isStacked = false,
    value = $bindable(),
    disabled,
    onchange
  }: Props = $props();
  const name = $props.id();
  const legendClass = {
    beside: 'float-left pr-3 font-semibold',
    above: 'pb-1 font-semibold',
    aloud: 'sr-only'
  };
</script>

<fieldset class={['flex gap-x-4 gap-y-1', isStacked ? 'flex-col' : 'flex-wrap items-center']}>
  <legend class={legendClass[shown]}>{legend}</legend>
  {#each options as [choice, label, note] (choice)}
    <label class="flex items-baseline gap-1.5"
      ><input
        type="radio"
        class="self-center"
        {name}
        value={choice}
        bind:group={value}
        disabled={disabled?.(choice)}
        {onchange}
      />
      <span
        >{label}{#if note}&nbsp;<span class="text-quiet">{note}</span>{/if}</span
      ></label
    >
  {/each}
</fieldset>
