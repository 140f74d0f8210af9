<script lang="ts" generics="T extends string">
  interface Props {
    legend: string;
    isLegendShown?: boolean;
    options: readonly (readonly [value: T, label: string])[];
    value: T;
    onchange?: () => void;
  }
  let { legend, isLegendShown = false, options, value = $bindable(), onchange }: Props = $props();
  const name = $props.id();
</script>

<fieldset class="flex flex-wrap items-center gap-x-4 gap-y-1">
  <legend class={isLegendShown ? 'float-left pr-3 font-semibold' : 'sr-only'}>{legend}</legend>
  {#each options as [choice, label] (choice)}
    <label class="flex items-center gap-1.5"
      ><input type="radio" {name} value={choice} bind:group={value} {onchange} />
      {label}</label
    >
  {/each}
</fieldset>
