<script lang="ts">
  import FieldPicker from './FieldPicker.svelte';

  interface Props {
    label: string;
    value: string;
    fields: { path: string; value: string }[];
    /** What it comes to for this video. */
    result?: string;
    rows?: number;
    placeholder?: string;
  }
  let { label, value = $bindable(), fields, result, rows = 1, placeholder = '' }: Props = $props();
  const id = $props.id();
  let element = $state<HTMLInputElement | HTMLTextAreaElement>();

  function insert(field: string) {
    const from = element?.selectionStart ?? value.length;
    const to = element?.selectionEnd ?? from;
    value = value.slice(0, from) + field + value.slice(to);
    element?.focus();
  }
</script>

<div class="flex flex-col gap-1">
  <div class="flex items-end justify-between gap-2">
    <label class="text-sm font-semibold" for={id}>{label}</label>
    <FieldPicker {fields} onpick={insert} {label} />
  </div>
  {#if rows > 1}
    <textarea {id} class="field" {rows} {placeholder} bind:value bind:this={element}></textarea>
  {:else}
    <input {id} class="field" {placeholder} bind:value bind:this={element} />
  {/if}
  {#if result !== undefined && result !== value}
    <p class="text-sm break-words text-quiet">{result || 'Comes to nothing for this video.'}</p>
  {/if}
</div>
