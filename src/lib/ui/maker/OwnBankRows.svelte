<script lang="ts">
  import type { OwnBankView } from '$lib/shared/making';
  import KindIcon from '../KindIcon.svelte';
  import { count } from '../format';
  import { VirtualRows } from '../virtual.svelte';
  import Peek from './Peek.svelte';

  type Row = OwnBankView['rows'][number];
  interface Props {
    rows: readonly Row[];
    ticked: string[];
    take: (row: Row) => void;
    order: (keys: string[]) => void;
    busy: boolean;
  }
  let { rows, ticked = $bindable(), take, order, busy }: Props = $props();
  let looked = $state.raw<Row | null>(null);
  const virtual = new VirtualRows({ count: 0, estimate: () => 52, key: (i) => rows[i]?.key ?? i });
  $effect(() => virtual.set(rows.length));
  function press(event: KeyboardEvent, at: number): void {
    const to = event.key === 'ArrowUp' ? at - 1 : event.key === 'ArrowDown' ? at + 1 : -1;
    if (!event.altKey || busy || to < 0 || to >= rows.length) return;
    event.preventDefault();
    const keys = rows.map((r) => r.key);
    keys.splice(to, 0, ...keys.splice(at, 1));
    order(keys);
  }
</script>

{#if rows.length === 0}<p class="text-quiet">
    Nothing in it yet. Tick questions at the left and put them in; they come from any package, course or bank.
  </p>{/if}
<div use:virtual.attach class="max-h-[70vh] overflow-y-auto {rows.length > 0 ? 'border-hair border-y' : ''}">
  <ol class="relative" style="height: {virtual.total}px" aria-label="Questions in this bank">
    {#each virtual.rows as place (place.key)}
      {@const row = rows[place.index]}
      {#if row}<li
          use:virtual.measure
          data-index={place.index}
          aria-setsize={rows.length}
          aria-posinset={place.index + 1}
          class="border-hair absolute top-0 left-0 flex w-full items-start gap-2.5 border-b py-1.5"
          style="transform: translateY({place.start}px)"
        >
          <input
            type="checkbox"
            aria-label={row.name}
            value={row.key}
            bind:group={ticked}
            class="border-quiet text-agave mt-1 size-[15px] shrink-0 rounded-sm dark:bg-transparent"
          />
          <span class="shrink-0 pt-0.5"><KindIcon kind={row.kind} /></span>
          <span class="min-w-0 grow">
            <button
              type="button"
              class="line-clamp-1 min-h-6 text-left font-serif text-[15px] leading-6 hover:underline"
              dir="auto"
              title="Show it as students see it; Alt and an arrow move it"
              onclick={() => (looked = row)}
              onkeydown={(e) => press(e, place.index)}>{row.name}</button
            >
            <span class="text-quiet flex gap-x-3 text-[12.5px]">
              <span class="truncate"
                >from {#if row.packageId && row.seq !== null}<a
                    class="act"
                    href="/packages/{row.packageId}?item={row.seq}">{row.from}</a
                  >{:else}{row.from}{/if}{row.category ? `, ${row.category}` : ''}</span
              >
              {#if row.gone}<span class="text-brick">it is not there any more</span>{/if}
              {#if row.newer}<span class="text-ochre"
                  >changed there
                  <button type="button" class="act" disabled={busy} onclick={() => take(row)}
                    >Take it as it is now<span class="sr-only">: {row.name}</span></button
                  ></span
                >{/if}
            </span>
          </span>
          <span class="num shrink-0 pt-0.5">{count(row.points)}<span class="sr-only"> points</span></span>
        </li>{/if}
    {/each}
  </ol>
</div>
{#if looked?.packageId && looked.seq !== null}<Peek
    packageId={looked.packageId}
    seq={looked.seq}
    close={() => (looked = null)}
  />{/if}
