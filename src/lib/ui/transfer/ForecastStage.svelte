<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { LossView } from '$lib/shared/losses';
  import type { Destination } from '$lib/shared/transfers';
  import { TARGET_NAMES, type TargetName } from '$lib/shared/stages';
  import type { JobView } from '$lib/shared/types';
  import { plural } from '../format';
  import Bars from '../charts/Bars.svelte';
  import FindingNote from '../room/FindingNote.svelte';
  import { command } from './command';
  import Losses from './Losses.svelte';

  interface Props {
    transferId: string;
    target: TargetName;
    /** Null while it is being worked out. */
    forecast: LossView | null;
    /** What the plan rests on; '' while there is none. */
    basis: string;
    /** How much each format loses; empty while that is not known. */
    byFormat: readonly { readonly target: TargetName; readonly losses: number }[];
    packageId: string;
    job: JobView | null;
    to: Destination;
    /** Whether the format was chosen by hand. */
    chosen: boolean;
    base: string;
  }
  let { transferId, target, forecast, basis, byFormat, packageId, job, to, chosen, base }: Props = $props();
  let trouble = $state('');
  const next = $derived(to.kind === 'course' ? 'Landing' : 'Send');
  const takes = $derived<readonly string[] | null>(to.kind === 'course' ? to.takes : null);
  async function choose(format: TargetName | null): Promise<void> {
    trouble = await command(transferId, { do: 'format', target: format });
  }
  async function avoid(at: readonly number[]): Promise<void> {
    trouble = await command(transferId, { do: 'avoid', at, basis });
  }
  const all = [
    { name: 'Cartridge', formats: ['cc1.1', 'cc1.2', 'cc1.3'] as TargetName[] },
    { name: 'QTI', formats: ['qti1.2', 'qti2.1', 'qti2.2', 'qti3.0'] as TargetName[] },
  ];
  const lossesIn = $derived(new Map(byFormat.map((f) => [f.target, f.losses])));
  /** Formats of one standard that lose the same are one bar. */
  const bars = $derived(
    all.flatMap((s) => {
      const known = s.formats.filter((f) => lossesIn.has(f));
      const values = new Set(known.map((f) => lossesIn.get(f)!));
      return values.size === 1 && known.length > 1
        ? [{ name: s.name, value: [...values][0]! }]
        : known.map((f) => ({ name: TARGET_NAMES[f], value: lossesIn.get(f)! }));
    }),
  );
  const lossText = (n: number): string => (n === 0 ? 'no losses' : plural(n, 'loss', 'losses'));
  const toLook = $derived(forecast?.draws ?? 0);
  const standards = $derived(
    all
      .map((s) => ({ ...s, formats: s.formats.filter((f) => takes === null || takes.includes(f)) }))
      .filter((s) => s.formats.length > 0),
  );
</script>

<div class="grid grid-cols-[300px_minmax(0,1fr)] gap-5 max-md:grid-cols-1">
  <div class="border-hair bg-surface self-start border px-4 py-3">
    <h2 class="text-[15px]">Format</h2>
    <p class="text-quiet mt-1 text-[13px]">
      {takes === null ? 'Choose the one your course system imports.' : 'Those the destination imports.'}
    </p>
    <label class="mt-2 flex cursor-pointer items-center gap-2.5 py-1">
      <input
        type="radio"
        name="target"
        value="best"
        checked={!chosen}
        onchange={() => choose(null)}
        class="border-quiet text-agave size-[15px] dark:bg-transparent"
      />
      Fewest losses{chosen ? '' : `: ${TARGET_NAMES[target]}`}
    </label>
    {#each standards as standard (standard.name)}
      <fieldset class="mt-3">
        <legend class="text-quiet text-[12.5px] font-semibold">{standard.name}</legend>
        {#each standard.formats as format (format)}
          <label class="flex cursor-pointer items-center gap-2.5 py-1">
            <input
              type="radio"
              name="target"
              value={format}
              checked={chosen && format === target}
              onchange={() => choose(format)}
              class="border-quiet text-agave size-[15px] dark:bg-transparent"
            />
            {TARGET_NAMES[format]}
            {#if lossesIn.has(format)}<span
                class="num ml-auto text-[12.5px] {lossesIn.get(format) === 0 ? 'text-quiet' : 'text-ochre'}"
                >{lossText(lossesIn.get(format)!)}</span
              >{/if}
          </label>
        {/each}
      </fieldset>
    {/each}
    {#if trouble}<p class="text-brick mt-2" role="alert">{trouble}</p>{/if}
    {#if new Set(bars.map((b) => b.value)).size > 1}<div class="mt-4">
        <Bars title="Losses by format" unit="losses" colour="ochre" {bars} />
      </div>{/if}
  </div>
  <section class="border-hair bg-surface border px-5 py-4" aria-labelledby="ahead">
    <h2 id="ahead" class="text-[15px]">
      {#if forecast === null}Working out the losses…
      {:else if forecast.real.count === 0}Everything travels in {TARGET_NAMES[target]}{toLook > 0
          ? `; check ${plural(toLook, 'draw setting')}`
          : ''}
      {:else}{plural(forecast.real.count, 'loss', 'losses')} in {TARGET_NAMES[target]}{/if}
    </h2>
    {#if job?.state === 'failed' && job.failure}<FindingNote found={job.failure} />{/if}
    {#if forecast === null}
      <p role="status" class="text-quiet mt-1">{job?.step || 'Every item is tried against the format.'}</p>
    {:else}
      <p class="text-quiet mt-1">
        Nothing has been written yet. The source keeps all of it, whatever the format loses.
      </p>
      <Losses losses={forecast.real} {packageId} {avoid} />
      {#if forecast.notes.count > 0}
        <details class="mt-4" open={forecast.real.count === 0}>
          <summary class="text-quiet">{plural(forecast.notes.count, 'change')} of form only</summary>
          <Losses losses={forecast.notes} {packageId} {avoid} />
        </details>
      {/if}
      <div class="mt-4 flex items-center gap-3">
        <Button href="{base}/{next.toLowerCase()}" color="primary">Next: {next}</Button>
        <a class="act" href="{base}/contents">Leave something out</a>
      </div>
    {/if}
  </section>
</div>
