<script lang="ts">
  import type { Waiting } from '$lib/shared/desk';
  import { count, when } from '../format';
  import { waitingGroups } from './waits';

  let { waiting }: { waiting: readonly Waiting[] } = $props();
  const groups = $derived(waitingGroups(waiting));
  const tones = { brick: 'text-brick', ochre: 'text-ochre', quiet: 'text-quiet' } as const;
</script>

<ul class="border-hair bg-surface border">
  {#each groups as group (group.sort)}
    {#each group.shown as w, at (at)}
      <li
        class="border-hair grid grid-cols-[92px_minmax(0,1fr)_auto] items-baseline gap-x-3 border-b px-4 py-1.5 last:border-0 max-md:grid-cols-[minmax(0,1fr)_auto]"
      >
        <span class="{tones[group.tone]} text-[12.5px] font-semibold max-md:col-span-2">{group.name}</span>
        <span class="min-w-0">
          <a
            class="block truncate font-serif text-[15.5px] max-md:line-clamp-2 max-md:whitespace-normal hover:underline"
            dir="auto"
            href={w.href}>{w.name}</a
          >
          <span class="text-quiet block truncate text-[12.5px] max-md:whitespace-normal"
            >{w.says}{w.at === null ? '' : ` · ${when(w.at)}`}</span
          >
        </span>
        <a class="act inline-flex min-h-6 items-center whitespace-nowrap" href={w.href}
          >{w.next}<span class="sr-only">: {w.name}</span></a
        >
      </li>
    {/each}
    {#if group.more > 0}
      <li class="border-hair border-b px-4 py-1 pl-[120px] last:border-0 max-md:pl-4">
        <a class="act text-[13px]" href={group.href}>{count(group.more)} more: {group.name.toLowerCase()}</a>
      </li>
    {/if}
  {/each}
</ul>
