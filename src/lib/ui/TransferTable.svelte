<script lang="ts">
  import ArrowDown from '@lucide/svelte/icons/arrow-down';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import type { TransferLine } from '$lib/shared/transfers';
  import { count, plural, when } from './format';
  import { STATE_NAMES, STATE_TONES, type Sort } from './lines';
  import ThrowAway from './ThrowAway.svelte';

  interface Props {
    lines: readonly TransferLine[];
    sort: Sort;
    /** The address of the list in another order. */
    by: (sort: Sort) => string;
  }
  let { lines, sort, by }: Props = $props();
  const columns = [
    { key: 'title', name: 'Transfer' },
    { key: 'from', name: 'From' },
    { key: 'state', name: 'State' },
    { key: 'begun', name: 'Begun' },
  ] as const;
  const home = (l: TransferLine): string => (l.kind === 'batch' ? `/batches/${l.id}` : `/transfers/${l.id}`);
</script>

{#snippet state(l: TransferLine)}
  <span class={STATE_TONES[l.state]}
    >{STATE_NAMES[l.state]}{#if l.takenBack && l.takenBack.refused.length > 0}
      in part{/if}</span
  >
  <span class="num text-quiet ml-1.5 text-[12.5px]">
    {#if l.takenBack}{when(l.takenBack.at)}, by {l.takenBack.by}
    {:else if l.state === 'stopped' && l.trouble}{l.trouble}
    {:else if l.counts && Object.values(l.counts).some((n) => n > 0)}{count(l.counts.intact)} intact{#each ['altered', 'missing', 'extra'] as const as key (key)}{l
          .counts[key] > 0
          ? `, ${count(l.counts[key])} ${key}`
          : ''}{/each}{l.open > 0 ? `; ${count(l.open)} open` : ''}{l.accepted > 0
        ? `${l.open > 0 ? ',' : ';'} ${count(l.accepted)} accepted`
        : ''}{/if}
  </span>
{/snippet}

<table class="border-hair bg-surface w-full border text-left max-md:block">
  <thead class="text-quiet border-hair border-b text-[12.5px] max-md:sr-only">
    <tr>
      {#each columns as { key, name } (key)}
        {@const here = sort.replace('-', '') === key}
        <th
          class="px-3 py-1.5 font-semibold first:pl-4"
          aria-sort={here ? (sort.startsWith('-') ? 'descending' : 'ascending') : undefined}
        >
          <a
            class="inline-flex min-h-6 items-center gap-1 hover:text-ink"
            href={by(sort === key ? `-${key}` : key)}
            >{name}{#if here}{#if sort.startsWith('-')}<ArrowDown size={12} />{:else}<ArrowUp
                  size={12}
                />{/if}{/if}</a
          >
        </th>
      {/each}
      <td></td>
    </tr>
  </thead>
  <tbody class="max-md:block">
    {#each lines as l (l.id)}
      <tr class="border-hair hover:bg-wash border-b last:border-0 max-md:block max-md:py-1.5">
        <td class="max-w-[360px] px-3 py-1 pl-4 max-md:block max-md:max-w-none"
          ><a class="block truncate font-serif text-[15.5px] hover:underline" dir="auto" href={home(l)}
            >{l.title}</a
          ></td
        >
        <td class="text-quiet max-w-[240px] truncate px-3 py-1 max-md:block max-md:pl-4" dir="auto"
          >{l.kind === 'batch' ? `batch, ${l.from}` : l.from}</td
        >
        <td class="max-w-[380px] px-3 py-1 max-md:block max-md:pl-4">{@render state(l)}</td>
        <td class="text-quiet px-3 py-1 whitespace-nowrap max-md:hidden">{when(l.createdAt)}</td>
        <td class="w-9 pr-2 max-md:hidden"><ThrowAway kind={l.kind} id={l.id} name={l.title} /></td>
      </tr>
    {/each}
  </tbody>
</table>
<p class="sr-only" role="status">{plural(lines.length, 'transfer')} listed</p>
