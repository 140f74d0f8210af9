<script lang="ts" generics="T">
  import type { Snippet } from 'svelte';
  import { Rows } from './rows.svelte.ts';

  interface Props {
    items: readonly T[];
    /** What an item is known by, wherever it stands. */
    keyOf: (item: T) => string | number;
    /** Pixels of a row, about: each is measured when it is drawn. */
    height: number;
    /** The element that scrolls; what stands above the list in it may change its height. */
    scroller: HTMLElement | undefined;
    /** A list of its own, or the rows of a table. */
    role: 'list' | 'rowgroup';
    label?: string;
    row: Snippet<[T]>;
  }
  let { items, keyOf, height, scroller, role, label, row }: Props = $props();
  let element = $state<HTMLElement>();
  let above = $state(0);
  const rows = new Rows(
    () => scroller,
    () => ({
      count: items.length,
      height,
      above,
      keyOf: (index) => {
        const item = items[index];
        return item === undefined ? index : keyOf(item);
      }
    })
  );

  $effect(() => {
    const content = element?.parentElement;
    if (!scroller || !element || !content) return;
    const [outer, inner] = [scroller, element];
    const observer = new ResizeObserver(() => {
      const top = inner.getBoundingClientRect().top - outer.getBoundingClientRect().top;
      above = Math.round(top + outer.scrollTop);
    });
    observer.observe(content);
    return () => observer.disconnect();
  });
</script>

<div bind:this={element} {role} aria-label={label} class="relative" style:height="{rows.total}px">
  {#each rows.items as { key, index, start } (key)}
    {@const item = items[index]}
    {#if item !== undefined}
      <div
        role={role === 'list' ? 'listitem' : 'row'}
        aria-setsize={role === 'list' ? items.length : undefined}
        aria-posinset={role === 'list' ? index + 1 : undefined}
        aria-rowindex={role === 'list' ? undefined : index + 2}
        data-index={index}
        class="absolute top-0 left-0 w-full"
        style:transform="translateY({start - above}px)"
        {@attach (node) => rows.measure(node)}
      >
        {@render row(item)}
      </div>
    {/if}
  {/each}
</div>
