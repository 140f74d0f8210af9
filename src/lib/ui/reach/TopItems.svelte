<script lang="ts">
  import type { TopSubject } from '$lib/core/reach/overview.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import { ageMessage } from './reachMessages.ts';

  let { items, titles }: { items: readonly TopSubject[]; titles: ReadonlyMap<string, string> } =
    $props();
  let kind = $state<TopSubject['kind']>('video');
  const FIRST = 8;
  let isAll = $state(false);
  const shown = $derived(items.filter((item) => item.kind === kind));
  const COUNTED = { video: 'Views', post: 'Visits', update: 'Responses' };
</script>

<section aria-labelledby="top-title" class="flex flex-col gap-1">
  <div class="flex flex-wrap items-baseline gap-x-4">
    <h2 id="top-title" class="font-semibold">Most reach</h2>
    <div class="text-sm">
      <Choice
        legend="Kind"
        options={[
          ['video', 'Videos'],
          ['post', 'Posts'],
          ['update', 'Updates']
        ]}
        bind:value={kind}
      />
    </div>
  </div>
  {#if shown.length === 0}
    <p class="text-sm text-quiet">
      {kind === 'post'
        ? 'Not known yet. Import the access log of your blog.'
        : kind === 'update'
          ? 'No network has told of updates from here yet.'
          : 'No channel tells of views.'}
    </p>
  {:else}
    <table class="w-full text-sm">
      <thead class="text-left text-quiet">
        <tr>
          <th scope="col" class="pr-4 font-normal">Title</th>
          <th scope="col" class="pr-4 text-right font-normal">Age</th>
          <th scope="col" class="text-right font-normal">{COUNTED[kind]}</th>
        </tr>
      </thead>
      <tbody>
        {#each isAll ? shown : shown.slice(0, FIRST) as { id, total, age } (id)}
          <tr class="border-t border-line">
            <th scope="row" class="py-0.5 pr-4 text-left font-normal wrap-anywhere"
              ><a class="underline" href="/reach/{id}">{titles.get(id) || 'No title'}</a></th
            >
            <td class="py-0.5 pr-4 text-right whitespace-nowrap text-quiet">{ageMessage(age)}</td>
            <td class="figures py-0.5 text-right">{total.toLocaleString('en')}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if shown.length > FIRST && !isAll}
      <button class="bare btn self-start btn-sm" onclick={() => (isAll = true)}
        >Show all {shown.length}</button
      >
    {/if}
  {/if}
</section>
