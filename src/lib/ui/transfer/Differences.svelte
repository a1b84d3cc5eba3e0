<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { JudgedDifference } from '$lib/shared/transfers';
  import { plural, readable, when } from '../format';
  import { command } from './command';
  import DifferenceGroup from './DifferenceGroup.svelte';
  import DifferenceLine from './DifferenceLine.svelte';
  import { sortDifferences } from './differences';

  interface Props {
    transferId: string;
    differences: readonly JudgedDifference[];
    notes: readonly string[];
    running: boolean;
    toCourse: boolean;
  }
  let { transferId, differences, notes, running, toCourse }: Props = $props();
  let trouble = $state('');
  const sorted = $derived(sortDifferences(differences));
  /** Many may have been accepted at once; the receipt lists them all. */
  const MOST_ACCEPTED = 50;
  const undoes = $derived([...new Set(sorted.open.flatMap((d) => d.undoes))]);
  const acceptedShown = $derived(sorted.accepted.slice(0, MOST_ACCEPTED));
  const ask = async (body: Record<string, unknown>): Promise<void> => {
    trouble = await command(transferId, body);
  };
  const idsOf = (list: readonly JudgedDifference[]): string[] => list.map((d) => d.id);
  const accept = (list: readonly JudgedDifference[], reason: string): Promise<void> =>
    ask({ do: 'decide', ids: idsOf(list), reason });
  const mend = (list: readonly JudgedDifference[]): Promise<void> => ask({ do: 'mend', ids: idsOf(list) });
</script>

{#each notes as note, n (n)}<p class="text-saddle text-[13.5px]">{note}</p>{/each}
{#if differences.length > 0}
  <section
    class="border-hair bg-surface max-h-[27vh] shrink-0 overflow-y-auto border"
    aria-label="Differences"
  >
    <div class="border-hair bg-surface sticky top-0 flex flex-wrap items-center gap-3 border-b px-4 py-1.5">
      <h2 class="text-[14px]">
        {sorted.open.length === 0
          ? 'Everything is decided'
          : `${plural(sorted.open.length, 'difference')} to decide`}
      </h2>
      {#if running}<span role="status" class="text-quiet">Checking…</span>{/if}
      <span class="ml-auto flex flex-wrap gap-2">
        {#if sorted.settable.length > 0}<Button
            color="primary"
            disabled={running}
            onclick={() => mend(sorted.settable)}>Fix in course ({sorted.settable.length})</Button
          >{/if}
        {#if sorted.sendable.length > 0}<Button
            color="alternative"
            disabled={running}
            onclick={() => mend(sorted.sendable)}
            >{toCourse ? 'Send missing and altered again' : 'Write a package of only these'} ({sorted.sendable
              .length})</Button
          >{/if}
      </span>
    </div>
    {#if trouble}<p class="text-brick px-4 py-1.5" role="alert">{trouble}</p>{/if}
    {#if undoes.length > 0}<p class="text-ochre px-4 py-1.5 text-[13.5px]" data-testid="undoes">
        Sending again recreates things and undoes what was fixed in them: {undoes.join('; ')}.
      </p>{/if}
    <ul>
      {#each sorted.groups as g (g.id)}<DifferenceGroup {g} {running} {accept} {mend} />{/each}
      {#each sorted.single as d (d.id)}<DifferenceLine
          {d}
          {running}
          onmend={() => mend([d])}
          onaccept={(reason) => accept([d], reason)}
        />{/each}
      {#each acceptedShown as d (d.id)}
        <li class="border-hair flex flex-wrap items-baseline gap-x-4 border-b px-4 py-1.5 last:border-0">
          <span class="text-quiet truncate" dir="auto">{d.what}: {readable(d.found) || 'nothing'}</span>
          <span class="text-[13px]"
            >accepted by {d.decision!.by}, {when(d.decision!.at)}: “{d.decision!.reason}”</span
          >
          <button type="button" class="act ml-auto text-[13.5px]" onclick={() => accept([d], '')}
            >Reopen</button
          >
        </li>
      {/each}
      {#if sorted.accepted.length > acceptedShown.length}<li class="text-quiet px-4 py-1.5 text-[13px]">
          and {plural(sorted.accepted.length - acceptedShown.length, 'more', 'more')} accepted; the receipt lists
          them
        </li>{/if}
    </ul>
  </section>
{/if}
