<script lang="ts">
  import type { DocumentLine } from '$lib/shared/documents';
  import { count, plural } from '../format';

  /** The documents of a source, each with what was read and what is open. */
  let {
    documents,
    path,
    hrefOf,
  }: {
    documents: readonly DocumentLine[];
    path: string;
    hrefOf: (path: string) => string;
  } = $props();
  const open = ({ unsure, unread, items, keyed, misfit }: DocumentLine): string =>
    items === 0
      ? 'no questions'
      : [
          misfit ? 'layout does not fit' : '',
          unsure > 0 ? `${count(unsure)} unsure` : '',
          unread > 0 ? `${count(unread)} not read` : '',
          keyed < items ? `${count(items - keyed)} without key` : '',
        ]
          .filter((t) => t !== '')
          .join(', ');
</script>

<nav class="border-hair bg-surface w-[236px] shrink-0 overflow-y-auto border" aria-label="Documents">
  {#each documents as one (one.path)}
    <a
      href={hrefOf(one.path)}
      aria-current={one.path === path ? 'page' : undefined}
      class="border-hair hover:bg-wash block border-b px-3 py-1.5 {one.path === path ? 'bg-band' : ''}"
      data-sveltekit-noscroll
    >
      <span class="block truncate font-semibold" dir="auto" title={one.path}
        >{one.path.replace('!/', ' · ')}</span
      >
      <span class="text-quiet block text-[12.5px]"
        ><span class="num">{plural(one.items, 'question')}</span>{#if open(one)}<span class="text-brick">
            · {open(one)}</span
          >{:else if one.items > 0}, all keyed{/if}</span
      >
    </a>
  {/each}
</nav>
