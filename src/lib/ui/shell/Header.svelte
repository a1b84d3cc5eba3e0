<script lang="ts">
  import { onMount } from 'svelte';
  import { page } from '$app/state';
  import CircleHelp from '@lucide/svelte/icons/circle-question-mark';
  import Moon from '@lucide/svelte/icons/moon';
  import Sun from '@lucide/svelte/icons/sun';
  import type { NoticeView } from '$lib/shared/types';
  import Mark from './Mark.svelte';
  import SearchBox from './SearchBox.svelte';
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
    { href: '/banks', name: 'Banks' },
    { href: '/quizzes', name: 'Quizzes' },
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
</script>

<header
  class="no-print border-hair bg-surface flex min-h-[46px] items-center gap-x-5 gap-y-1.5 border-b px-(--gutter) max-md:flex-wrap max-md:gap-x-4 max-md:py-2"
>
  <a href="/" class="text-saddle flex items-center gap-2 font-serif text-[19px] font-semibold"
    ><Mark />Alforja</a
  >
  <nav aria-label="Places" class="flex gap-5 max-md:gap-3 max-sm:order-1 max-sm:basis-full max-sm:flex-wrap">
    {#each places as place (place.href)}
      <a
        href={place.href}
        aria-current={here(place.href) ? 'page' : undefined}
        class={here(place.href) ? 'font-semibold' : 'text-quiet hover:text-ink'}>{place.name}</a
      >
    {/each}
  </nav>
  <SearchBox bind:input={searchBox} />
  <div class="flex items-center gap-x-5 max-md:ml-auto max-md:gap-x-3">
    <a
      href="/help"
      class="text-quiet hover:text-ink grid size-7 place-items-center"
      aria-label="How a transfer works"
      aria-current={here('/help') ? 'page' : undefined}><CircleHelp size={17} /></a
    >
    <Tray {notices} {unread} />
    <button
      type="button"
      class="text-quiet hover:text-ink grid size-7 place-items-center"
      onclick={toggleTheme}
      aria-label={dark ? 'Light theme' : 'Dark theme'}
    >
      {#if dark}<Sun size={17} />{:else}<Moon size={17} />{/if}
    </button>
  </div>
</header>
