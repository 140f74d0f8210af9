<script lang="ts" generics="F extends object">
  import Redo2 from '@lucide/svelte/icons/redo-2';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import type { Autosave } from './autosave.svelte.ts';

  interface Props {
    autosave: Autosave<F>;
    /** What it is the history of, where a view has several. */
    of?: string;
  }
  let { autosave, of = '' }: Props = $props();
  let root = $state<HTMLElement>();

  function onkeydown(event: KeyboardEvent) {
    const key = event.key.toLowerCase();
    if (!(event.ctrlKey || event.metaKey) || event.altKey || (key !== 'z' && key !== 'y')) return;
    const target = event.target as Element;
    // In a field of its own the browser undoes the typing.
    if (target.matches('input:not([type=checkbox], [type=radio], [type=range]), textarea')) return;
    const card = root?.closest('article');
    if (card && !card.contains(target)) return;
    event.preventDefault();
    if (key === 'y' || event.shiftKey) autosave.redo();
    else autosave.undo();
  }
</script>

<svelte:window {onkeydown} />

<span bind:this={root} class="flex">
  <button
    class="bare btn-icon btn-icon-sm"
    aria-label={of ? `Undo: ${of}` : 'Undo'}
    title="Undo"
    disabled={!autosave.canUndo}
    onclick={() => autosave.undo()}><Undo2 aria-hidden="true" /></button
  >
  <button
    class="bare btn-icon btn-icon-sm"
    aria-label={of ? `Redo: ${of}` : 'Redo'}
    title="Redo"
    disabled={!autosave.canRedo}
    onclick={() => autosave.redo()}><Redo2 aria-hidden="true" /></button
  >
</span>
