<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { landingId, type CourseOutline, type Landing, type LandingOverride } from '@alforja/core';
  import { courseName, type CourseListing } from '$lib/shared/courses';
  import type { Gradable, PlanShown, TransferOptions } from '$lib/shared/transfers';
  import { plural } from '../format';
  import LandingRow from './LandingRow.svelte';
  import SectionsPanel from './SectionsPanel.svelte';

  interface Props {
    to: CourseListing | null;
    outline: CourseOutline;
    plan: PlanShown | null;
    /** The plan, or the one before while it is being worked out. */
    shown: PlanShown | null;
    options: TransferOptions;
    byHand: readonly string[];
    gradable: readonly Gradable[];
    land: (l: Landing, change: LandingOverride | null) => Promise<void>;
    setOptions: (change: Partial<TransferOptions>) => Promise<void>;
    base: string;
  }
  let { to, outline, plan, shown, options, byHand, gradable, land, setOptions, base }: Props = $props();
  const landings = $derived(shown?.landings ?? []);
  const going = $derived(landings.filter((l) => l.action !== 'skip').length);
  function drop(section: string | null, landing: string): void {
    const l = landings.find((x) => landingId(x) === landing);
    if (l) void land(l, { section });
  }
</script>

{#if to}
  <p class="flex flex-wrap items-baseline gap-x-3">
    <span class="text-quiet">Into</span><b>{courseName(to)}</b>
    {#if to.openAttempts > 0}<span class="text-ochre">{plural(to.openAttempts, 'attempt')} in progress.</span
      >{/if}
  </p>
{:else}<p class="text-brick" role="alert">
    The destination is no longer listed. <a class="act" href="/courses">Open courses</a>
  </p>{/if}
{#if shown === null}
  <p role="status" class="text-quiet">Reading the destination and comparing…</p>
{:else}
  <div class="grid grid-cols-[minmax(0,1fr)_300px] gap-5 max-lg:grid-cols-1">
    <section aria-label="How each thing lands">
      <div class="mb-2 flex flex-wrap items-center gap-x-5 gap-y-1 text-[13.5px]">
        <label class="flex items-center gap-2"
          >Sections <select
            class="border-hair bg-surface text-ink h-8 rounded border py-0 text-[13.5px]"
            value={options.byPosition ? 'position' : 'name'}
            onchange={(e) => setOptions({ byPosition: e.currentTarget.value === 'position' })}
            ><option value="name">by name</option><option value="position">by position</option></select
          ></label
        >
        <label class="flex items-center gap-2"
          >If an older version exists <select
            class="border-hair bg-surface text-ink h-8 rounded border py-0 text-[13.5px]"
            value={options.onVersion}
            onchange={(e) => setOptions({ onVersion: e.currentTarget.value as TransferOptions['onVersion'] })}
            ><option value="replace">Replace (hide the old one)</option><option value="keep">Keep both</option
            ><option value="skip">Keep the old one</option></select
          ></label
        >
        <span role="status" class="text-quiet ml-auto"
          >{plan ? `${plural(going, 'thing')} to land` : 'Updating…'}</span
        >
      </div>
      <ul class="border-hair bg-surface border border-b-0">
        {#each landings as l (landingId(l))}
          <LandingRow
            landing={l}
            {outline}
            {gradable}
            byHand={byHand.includes(landingId(l))}
            onchange={(change) => land(l, change)}
          />
        {:else}<li class="border-hair border-b px-4 py-3">
            Nothing is ticked yet. <a class="act" href="{base}/contents">Choose what to include</a>
          </li>{/each}
      </ul>
      {#if plan && plan.troubles.length === 0 && landings.length > 0}<div class="mt-3">
          <Button href="{base}/send" color="primary">Next: Send</Button>
        </div>{/if}
    </section>
    <SectionsPanel {outline} {landings} ondrop={drop} />
  </div>
{/if}
