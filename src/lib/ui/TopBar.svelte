<script lang="ts">
  import Moon from '@lucide/svelte/icons/moon';
  import Search from '@lucide/svelte/icons/search';
  import Sun from '@lucide/svelte/icons/sun';
  import { page } from '$app/state';
  import { allPlaces } from '$lib/data/places.ts';
  import Alerts from './Alerts.svelte';
  import { live } from './live.svelte.ts';
  import { mode } from './mode.svelte.ts';

  let { onsearch }: { onsearch: () => void } = $props();

  const views = [
    { href: '/', label: 'In step' },
    { href: '/updates', label: 'Updates' },
    { href: '/lanes', label: 'Lanes' },
    { href: '/calendar', label: 'Calendar' },
    { href: '/reach', label: 'Reach' },
    { href: '/places', label: 'Places' },
    { href: '/journal', label: 'Journal' }
  ];
  const places = live(() => allPlaces);
  const isHere = (href: string) =>
    href === '/'
      ? /^\/(?:$|desk|booth|pairs|changes|comments|list-pages|glossary)/.test(page.url.pathname)
      : href === '/lanes'
        ? /^\/(?:lanes|review)/.test(page.url.pathname)
        : href === '/places'
          ? /^\/(?:places|archive)/.test(page.url.pathname)
          : page.url.pathname.startsWith(href);
</script>

<header class="flex h-12 items-center gap-1 border-b border-line bg-sheet px-1 sm:gap-3 sm:px-3">
  <!-- The first view leads there too: one stop of the Tab key is enough. -->
  <a
    href="/"
    tabindex="-1"
    class="flex shrink-0 items-center gap-2 font-semibold max-[26rem]:hidden"
    aria-label="Swift Twin, to In step"
  >
    <img src="/favicon.svg" alt="" class="size-6 rounded-base dark:ring-1 dark:ring-edge" /><span
      class="hidden md:inline">Swift Twin</span
    >
  </a>
  <nav aria-label="Views" class="flex min-w-0 overflow-x-auto">
    {#each views as { href, label } (href)}
      <a
        {href}
        aria-current={isHere(href) ? 'page' : undefined}
        class="shrink-0 border-b-2 px-1 py-2.5 text-[0.8125rem] sm:px-2.5 sm:text-sm lg:px-3 {isHere(
          href
        )
          ? 'border-ink font-semibold'
          : 'border-transparent hover:border-edge'}">{label}</a
      >
    {/each}
  </nav>
  <ul
    class="ml-auto hidden min-w-0 items-center gap-3 text-sm text-quiet lg:flex"
    aria-label="Places in use"
  >
    {#each places.value ?? [] as place (place.id)}
      <li class="flex min-w-0 items-center gap-1.5">
        <span
          class="h-3 w-1 shrink-0 rounded-full {place.kind === 'channel' ? 'bg-video' : 'bg-post'}"
          aria-hidden="true"
        ></span>
        <span class="truncate">{place.title}</span>
        {#if place.problem}<a href="/places" class="shrink-0 text-ink underline">needs attention</a
          >{/if}
      </li>
    {/each}
  </ul>
  <span class="ml-auto lg:ml-0"></span>
  <Alerts />
  <button class="plain btn shrink-0 btn-sm" onclick={onsearch}>
    <Search aria-hidden="true" /><span class="max-lg:sr-only">Search and commands</span>
    <kbd class="hidden text-xs text-quiet sm:inline">Ctrl K</kbd>
  </button>
  <button
    class="bare btn-icon btn-icon-sm max-sm:hidden"
    aria-label={mode.isDark ? 'Use light colours' : 'Use dark colours'}
    onclick={() => mode.toggle()}
  >
    {#if mode.isDark}<Sun aria-hidden="true" />{:else}<Moon aria-hidden="true" />{/if}
  </button>
</header>
