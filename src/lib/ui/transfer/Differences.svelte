<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { DifferencesMeant, DifferencesShown } from '$lib/shared/differences';
  import { count, plural, readable, when } from '../format';
  import { command } from './command';
  import DifferenceGroup from './DifferenceGroup.svelte';
  import DifferenceLine from './DifferenceLine.svelte';

  interface Props {
    transferId: string;
    differences: DifferencesShown;
    /** When it was compared: what is done is done about what was found then. */
    compared: number;
    notes: readonly string[];
    running: boolean;
    toCourse: boolean;
  }
  let { transferId, differences, compared, notes, running, toCourse }: Props = $props();
  let trouble = $state('');
  const { open, accepted, groups, single, firstAccepted, undoes } = $derived(differences);
  const ask = async (body: Record<string, unknown>): Promise<void> => {
    trouble = await command(transferId, body);
  };
  const accept = (meant: DifferencesMeant, reason: string): Promise<void> =>
    ask({ do: 'decide', meant, compared, reason });
  const mend = (meant: DifferencesMeant): Promise<void> => ask({ do: 'mend', meant, compared });
</script>

{#each notes as note, n (n)}<p class="text-saddle text-[13.5px]">{note}</p>{/each}
{#if open + accepted > 0}
  <section
    class="border-hair bg-surface max-h-[27vh] shrink-0 overflow-y-auto border"
    aria-label="Differences"
  >
    <div class="border-hair bg-surface sticky top-0 flex flex-wrap items-center gap-3 border-b px-4 py-1.5">
      <h2 class="text-[14px]">
        {open === 0 ? 'Everything is decided' : `${plural(open, 'difference')} to decide`}
      </h2>
      {#if running}<span role="status" class="text-quiet">Checking…</span>{/if}
      <span class="ml-auto flex flex-wrap gap-2">
        {#if differences.settable > 0}<Button
            color="primary"
            disabled={running}
            onclick={() => mend({ all: 'settable' })}>Fix in course ({count(differences.settable)})</Button
          >{/if}
        {#if differences.sendable > 0}<Button
            color="alternative"
            disabled={running}
            onclick={() => mend({ all: 'sendable' })}
            >{toCourse ? 'Send missing and altered again' : 'Write a package of only these'} ({count(
              differences.sendable,
            )})</Button
          >{/if}
      </span>
    </div>
    {#if trouble}<p class="text-brick px-4 py-1.5" role="alert">{trouble}</p>{/if}
    {#if undoes.length > 0}<p class="text-ochre px-4 py-1.5 text-[13.5px]" data-testid="undoes">
        Sending again recreates things and undoes what was fixed in them: {undoes.join('; ')}.
      </p>{/if}
    <ul>
      {#each groups as g (g.id)}<DifferenceGroup {g} {running} {accept} {mend} />{/each}
      {#each single as d (d.id)}<DifferenceLine
          {d}
          {running}
          onmend={() => mend({ ids: [d.id] })}
          onaccept={(reason) => accept({ ids: [d.id] }, reason)}
        />{/each}
      {#if differences.singles > single.length}<li class="text-quiet px-4 py-1.5 text-[13px]">
          and {plural(differences.singles - single.length, 'more', 'more')}; the receipt lists them
        </li>{/if}
      {#each firstAccepted as d (d.id)}
        <li class="border-hair flex flex-wrap items-baseline gap-x-4 border-b px-4 py-1.5 last:border-0">
          <span class="text-quiet truncate" dir="auto">{d.what}: {readable(d.found) || 'nothing'}</span>
          <span class="text-[13px]"
            >accepted by {d.decision!.by}, {when(d.decision!.at)}: “{d.decision!.reason}”</span
          >
          <button type="button" class="act ml-auto text-[13.5px]" onclick={() => accept({ ids: [d.id] }, '')}
            >Reopen</button
          >
        </li>
      {/each}
      {#if accepted > firstAccepted.length}<li class="text-quiet px-4 py-1.5 text-[13px]">
          and {plural(accepted - firstAccepted.length, 'more', 'more')} accepted; the receipt lists them
        </li>{/if}
    </ul>
  </section>
{/if}
