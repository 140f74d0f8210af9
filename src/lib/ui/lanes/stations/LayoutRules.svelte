<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import { allLayouts } from '$lib/data/layouts.ts';
  import { live } from '$lib/ui/live.svelte.ts';

  interface Props {
    make: Lane['make'];
  }
  let { make = $bindable() }: Props = $props();
  const layouts = live(() => allLayouts);
  const isGone = (id: string) => layouts.value && !layouts.value.some((l) => l.id === id);

  function add() {
    const layout = layouts.value?.[0]?.id ?? '';
    make.layoutRules = [...make.layoutRules, { by: 'language', is: '', layout }];
  }
</script>

{#snippet choices()}
  {#each layouts.value ?? [] as { id, name } (id)}<option value={id}>{name}</option>{/each}
{/snippet}

<div class="flex flex-col items-start gap-2">
  <label class="flex flex-wrap items-center gap-2"
    >Layout of the post
    <select class="field w-auto max-w-full min-w-0" bind:value={make.layout}>
      <option value={null}>As the last post of the channel</option>
      {@render choices()}
      {#if make.layout && isGone(make.layout)}<option value={make.layout}>A deleted layout</option
        >{/if}
    </select></label
  >
  {#if make.layoutRules.length > 0}
    <ol class="flex flex-col gap-2" aria-label="Layouts for some items">
      {#each make.layoutRules as rule, i (i)}
        <li class="flex flex-wrap items-center gap-2">
          <label class="flex items-center gap-2"
            ><span class="shrink-0">If its</span>
            <select class="field w-auto max-w-full min-w-0" bind:value={rule.by}>
              <option value="language">language is</option>
              <option value="tag">categories or tags have</option>
            </select></label
          >
          <input
            class="field w-36"
            aria-label={rule.by === 'language'
              ? 'Language (a code, such as de)'
              : 'Category or tag'}
            placeholder={rule.by === 'language' ? 'de' : 'Dyeing'}
            bind:value={rule.is}
          />
          <label class="flex items-center gap-2"
            >take <select class="field w-auto max-w-full min-w-0" bind:value={rule.layout}
              >{@render choices()}{#if isGone(rule.layout)}<option value={rule.layout}
                  >A deleted layout</option
                >{/if}</select
            ></label
          >
          <button
            class="bare btn btn-sm"
            aria-label="Remove rule {i + 1}"
            onclick={() => {
              make.layoutRules = make.layoutRules.filter((r) => r !== rule);
            }}>Remove</button
          >
        </li>
      {/each}
    </ol>
  {/if}
  {#if layouts.value && layouts.value.length > 0}
    <button class="plain btn btn-sm" onclick={add}>Another layout for some items</button>
  {:else if layouts.value}
    <p class="text-quiet">
      Layouts that you save on the desk, under “Layout”, can be chosen here, by language or category
      as well.
    </p>
  {/if}
</div>
