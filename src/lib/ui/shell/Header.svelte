<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import Moon from '@lucide/svelte/icons/moon';
  import Sun from '@lucide/svelte/icons/sun';
  import Kbd from 'flowbite-svelte/Kbd.svelte';
  import type { NoticeView } from '$lib/shared/types';
  import Mark from './Mark.svelte';
  import Tray from './Tray.svelte';

  interface Props {
    searchBox?: HTMLInputElement | null;
    notices: readonly NoticeView[];
    unread: number;
  }
  let { searchBox = $bindable(null), notices, unread }: Props = $props();
  const places = [
    { href: '/', name: 'Desk' },
    { href: '/packages', name: 'Packages' },
    { href: '/courses', name: 'Courses' },
    { href: '/rubrics', name: 'Rubrics' },
    { href: '/transfers', name: 'Transfers' },
  ];
  const here = (href: string): boolean =>
    href === '/' ? page.url.pathname === '/' : page.url.pathname.startsWith(href);
  let dark = $state(false);
  onMount(() => {
    dark = document.documentElement.classList.contains('dark');
  });
  function toggleTheme(): void {
    dark = !dark;
    document.documentElement.classList.toggle('dark', dark);
    localStorage.setItem('theme', dark ? 'dark' : 'light');
  }
  function find(event: SubmitEvent): void {
    event.preventDefault();
    const query = String(new FormData(event.currentTarget as HTMLFormElement).get('q') ?? '').trim();
    if (query) void goto(`/find?q=${encodeURIComponent(query)}`);
  }
</script>

<header
  class="no-print border-hair bg-surface flex min-h-[46px] items-center gap-x-7 gap-y-1.5 border-b px-6 max-md:flex-wrap max-md:gap-x-4 max-md:px-4 max-md:py-2"
>
  <a href="/" class="text-saddle flex items-center gap-2 font-serif text-[19px] font-semibold"
    ><Mark />Alforja</a
  >
  <nav aria-label="Places" class="flex gap-5 max-md:gap-3">
    {#each places as place (place.href)}
      <a
        href={place.href}
        aria-current={here(place.href) ? 'page' : undefined}
        class={here(place.href) ? 'font-semibold' : 'text-quiet hover:text-ink'}>{place.name}</a
      >
    {/each}
  </nav>
  <form
    class="relative ml-auto w-[280px] max-md:order-last max-md:w-full"
    role="search"
    action="/find"
    onsubmit={find}
  >
    <input
      bind:this={searchBox}
      name="q"
      type="search"
      aria-label="Find a course, a package or an item"
      placeholder="Find a course, a package, an item…"
      value={(page.url.pathname === '/find' && page.url.searchParams.get('q')) || ''}
      class="border-hair bg-paper text-ink placeholder:text-quiet h-8 w-full rounded border px-2.5 pr-8 text-[13.5px]"
    />
    <Kbd
      class="border-hair bg-surface text-quiet pointer-events-none absolute top-1.5 right-1.5 border px-1.5 py-0 text-[11px] dark:bg-transparent"
      >/</Kbd
    >
  </form>
  <Tray {notices} {unread} />
  <button
    type="button"
    class="text-quiet hover:text-ink p-1"
    onclick={toggleTheme}
    aria-label={dark ? 'Light theme' : 'Dark theme'}
  >
    {#if dark}<Sun size={17} />{:else}<Moon size={17} />{/if}
  </button>
</header>
