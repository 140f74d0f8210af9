<script lang="ts">
  import Braces from '@lucide/svelte/icons/braces';

  interface Props {
    fields: { path: string; value: string }[];
    onpick: (field: string) => void;
    label: string;
  }
  let { fields, onpick, label }: Props = $props();
  const id = $props.id();
  let list = $state<HTMLElement>();
</script>

<button
  type="button"
  class="plain btn btn-sm"
  popovertarget={id}
  aria-label="Insert field into {label}"
>
  <Braces aria-hidden="true" />Field
</button>
<div
  {id}
  bind:this={list}
  popover="auto"
  class="fields max-h-72 w-80 max-w-[90vw] overflow-y-auto rounded-container border border-edge bg-sheet p-1 text-ink shadow-xl"
>
  <ul aria-label="Fields, with their values for this video">
    {#each fields as { path, value } (path)}
      <li>
        <button
          type="button"
          class="flex w-full flex-col rounded-base px-2 py-1 text-left text-sm hover:bg-marked"
          onclick={() => {
            list?.hidePopover();
            onpick(`{{ ${path} }}`);
          }}
        >
          <span class="times">{path}</span>
          <span class="block w-full truncate text-quiet">{value || 'no value for this video'}</span>
        </button>
      </li>
    {/each}
  </ul>
</div>

<style>
  .fields {
    inset: auto;
    margin: 0.25rem 0;
    position-area: bottom span-left;
    position-try-fallbacks: flip-block;
  }
</style>
