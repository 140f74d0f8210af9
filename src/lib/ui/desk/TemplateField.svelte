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
  /** Whether the template itself is seen, not what it comes to: while it is typed, or by choice. */
  let isTyping = $state(false);
  let isRaw = $state(false);
  const hasFields = $derived(/\{/.test(value));
  const showsResult = $derived(
    hasFields && result !== undefined && result !== '' && !isRaw && !isTyping
  );
  const shown = $derived(showsResult ? (result ?? '') : value);

  function insert(field: string) {
    const isWhole = showsResult;
    const from = isWhole ? value.length : (element?.selectionStart ?? value.length);
    const to = isWhole ? value.length : (element?.selectionEnd ?? from);
    value = value.slice(0, from) + field + value.slice(to);
    element?.focus();
  }
  function oninput(event: Event & { currentTarget: HTMLInputElement | HTMLTextAreaElement }) {
    isTyping = true;
    value = event.currentTarget.value;
  }
  const onblur = () => (isTyping = false);
</script>

<div class="flex flex-col gap-1">
  <div class="flex items-end justify-between gap-2">
    <label class="text-sm font-semibold" for={id}>{label}</label>
    <span class="flex gap-1">
      {#if hasFields && result !== undefined}
        <button
          type="button"
          class="bare btn btn-sm"
          aria-pressed={isRaw}
          aria-label="Show the fields of {label}"
          onclick={() => (isRaw = !isRaw)}>{isRaw ? 'Hide fields' : 'Show fields'}</button
        >
      {/if}
      <FieldPicker {fields} onpick={insert} {label} />
    </span>
  </div>
  {#if rows > 1}
    <textarea
      {id}
      class="field"
      {rows}
      {placeholder}
      value={shown}
      {oninput}
      {onblur}
      bind:this={element}></textarea>
  {:else}
    <input {id} class="field" {placeholder} value={shown} {oninput} {onblur} bind:this={element} />
  {/if}
  {#if result !== undefined && !showsResult && result !== value}
    <p class="text-sm break-words text-quiet">{result || 'Comes to nothing for this video.'}</p>
  {/if}
</div>
