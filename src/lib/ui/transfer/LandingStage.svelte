<script lang="ts">
  import { landingId, type Landing, type LandingOverride } from '@alforja/core';
  import type { Gradable, PlanShown, TransferState } from '$lib/shared/transfers';
  import { command } from './command';
  import CourseLanding from './CourseLanding.svelte';
  import FileLanding from './FileLanding.svelte';

  interface Props {
    transferId: string;
    packageId: string;
    state: TransferState;
    gradable: readonly Gradable[];
    base: string;
  }
  let { transferId, packageId, state: how, gradable, base }: Props = $props();
  let trouble = $state('');
  // While a change is worked into the plan, the one before stays in sight.
  let last = $state.raw<PlanShown | null>(null);
  $effect(() => {
    if (how.plan) last = how.plan;
  });
  const shown = $derived(how.plan ?? last);
  const ask = async (body: Readonly<Record<string, unknown>>): Promise<void> => {
    trouble = await command(transferId, body);
  };
  const land = (l: Landing, change: LandingOverride | null): Promise<void> =>
    ask({ do: 'land', landing: landingId(l), change });
</script>

{#if how.to.kind === 'file'}
  <FileLanding plan={how.plan} {shown} byHand={how.byHand} {packageId} {land} {base} />
{:else}
  <CourseLanding
    to={how.to.course}
    outline={how.to.outline ?? { sections: [], things: [] }}
    plan={how.plan}
    {shown}
    options={how.options}
    byHand={how.byHand}
    {gradable}
    {land}
    setOptions={(change) => ask({ do: 'options', options: { ...how.options, ...change } })}
    {base}
  />
{/if}
{#if trouble}<p class="text-brick mt-2" role="alert">{trouble}</p>{/if}
{#each how.plan?.troubles ?? [] as said, n (n)}<p class="text-brick mt-2" role="alert">{said}</p>{/each}
