<script lang="ts">
  import { v4 } from 'uuid';
  import { asToday, type Template } from '$lib/core/article/template/template.ts';
  import { allLayouts, saveLayout } from '$lib/data/layouts.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { typed } from '$lib/ui/typed.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { sayDiscarded } from '$lib/ui/sayDiscarded.ts';
  import { discard } from '$lib/work/discard.ts';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
  const layouts = live(() => allLayouts);
  let chosen = $state('');
  const form = typed(() => 'layout', { name: '' });
  const current = $derived(layouts.value?.find((l) => l.id === chosen));

  function take() {
    if (!current) return;
    const { template } = current;
    desk.autosave.change(() => (desk.template = asToday($state.snapshot(template))));
    deck.say(`Layout applied: “${current.name}”.`);
  }
  async function remove() {
    if (!current) return;
    const { id, name: title } = current;
    const trash = await discard({ what: 'layout-deleted', title }, [['layouts', id]]);
    sayDiscarded(`The layout “${title}” was deleted.`, trash, title);
  }
  async function keep() {
    const wanted = form.fields.name.trim();
    const same = layouts.value?.find((l) => l.name.toLowerCase() === wanted.toLowerCase());
    const id = same?.id ?? v4();
    await saveLayout({ id, name: wanted, template: $state.snapshot(desk.template) as Template });
    chosen = id;
    form.clear();
    deck.say(same ? `“${wanted}” is saved again.` : `Layout saved as “${wanted}”.`);
  }
</script>

<section
  aria-label="Saved layouts"
  class="flex flex-wrap items-end gap-x-4 gap-y-2 rounded-container border border-line bg-sheet p-2 text-sm"
>
  {#if layouts.value && layouts.value.length > 0}
    <div class="flex items-end gap-1">
      <label class="flex flex-col gap-1"
        >Saved layouts
        <select class="field" bind:value={chosen}>
          <option value="">Choose one</option>
          {#each layouts.value as layout (layout.id)}<option value={layout.id}>{layout.name}</option
            >{/each}
        </select></label
      >
      <button class="plain btn btn-sm" disabled={!current} onclick={take}>Apply</button>
      <button
        class="bare btn btn-sm"
        disabled={!current}
        aria-label="Delete this layout"
        onclick={remove}>Delete</button
      >
    </div>
  {/if}
  <div class="flex min-w-0 flex-1 items-end gap-1">
    <label class="flex min-w-0 flex-1 basis-40 flex-col gap-1"
      >Save this layout as
      <input
        class="field min-w-0"
        placeholder="A name, such as German videos"
        bind:value={form.fields.name}
        onkeydown={(event) => event.key === 'Enter' && form.fields.name.trim() && keep()}
      /></label
    >
    <button class="plain btn btn-sm" disabled={!form.fields.name.trim()} onclick={keep}>Save</button
    >
  </div>
</section>
