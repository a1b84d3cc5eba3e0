<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type {
    CourseListing,
    CourseOutline,
    Gradable,
    Landing,
    Plan,
    TransferOptions,
  } from '$lib/shared/courses';
  import { courseName } from '$lib/shared/courses';
  import { plural } from '../format';
  import { command } from './command';
  import LandingRow from './LandingRow.svelte';
  import SectionsPanel from './SectionsPanel.svelte';

  interface Props {
    transferId: string;
    to: CourseListing | null;
    there: CourseOutline | null;
    gradable: readonly Gradable[];
    /** Null while it is being worked out. */
    plan: Plan | null;
    options: TransferOptions;
    byHand: readonly string[];
    base: string;
  }
  let { transferId, to, there, gradable, plan, options, byHand, base }: Props = $props();
  let trouble = $state('');
  // While a change is worked into the plan, the one before stays in sight.
  let last = $state.raw<Plan | null>(null);
  $effect(() => {
    if (plan) last = plan;
  });
  const shown = $derived(plan ?? last);
  const landings = $derived(shown?.landings ?? []);
  const outline = $derived(there ?? { sections: [], things: [] });
  const going = $derived(landings.filter((l) => l.action !== 'skip').length);

  async function land(l: Landing, change: Partial<Landing> | null): Promise<void> {
    trouble = await command(transferId, { do: 'land', key: `${l.kind} ${l.node}`, change });
  }
  async function set(change: Partial<TransferOptions>): Promise<void> {
    trouble = await command(transferId, { do: 'options', options: { ...options, ...change } });
  }
  function drop(section: string | null, key: string): void {
    const l = landings.find((x) => `${x.kind} ${x.node}` === key);
    if (l) void land(l, { section });
  }
</script>

{#if to}
  <p class="flex flex-wrap items-baseline gap-x-3">
    <span class="text-quiet">Lands in</span><b>{courseName(to)}</b>
    {#if to.openAttempts > 0}<span class="text-ochre"
        >Students are in the middle of it: {plural(to.openAttempts, 'attempt')} open.</span
      >{/if}
  </p>
{:else}<p class="text-brick" role="alert">
    The destination is no longer in sight. <a class="act" href="/courses">Look at the courses</a>
  </p>{/if}
{#if shown === null}
  <p role="status" class="text-quiet">Looking at the destination, and at what of this is there already…</p>
{:else}
  <div class="grid grid-cols-[minmax(0,1fr)_300px] gap-5 max-lg:grid-cols-1">
    <section aria-label="How each thing lands">
      <div class="mb-2 flex flex-wrap items-center gap-x-5 gap-y-1 text-[13.5px]">
        <label class="flex items-center gap-2"
          >Sections <select
            class="border-hair bg-surface text-ink h-8 rounded border py-0 text-[13.5px]"
            value={options.byPosition ? 'position' : 'name'}
            onchange={(e) => set({ byPosition: e.currentTarget.value === 'position' })}
            ><option value="name">by name</option><option value="position">by position</option></select
          ></label
        >
        <label class="flex items-center gap-2"
          >An older version there <select
            class="border-hair bg-surface text-ink h-8 rounded border py-0 text-[13.5px]"
            value={options.onVersion}
            onchange={(e) => set({ onVersion: e.currentTarget.value as TransferOptions['onVersion'] })}
            ><option value="replace">makes way, hidden</option><option value="keep">stays beside it</option
            ><option value="skip">stays instead</option></select
          ></label
        >
        <span role="status" class="text-quiet ml-auto"
          >{plan ? plural(going, 'thing') + ' to land' : 'working it in…'}</span
        >
      </div>
      <ul class="border-hair bg-surface border border-b-0">
        {#each landings as l (l.kind + l.node)}
          <LandingRow
            landing={l}
            {outline}
            {gradable}
            byHand={byHand.includes(`${l.kind} ${l.node}`)}
            onchange={(change) => land(l, change)}
          />
        {:else}<li class="border-hair border-b px-4 py-3">
            Nothing is ticked yet. <a class="act" href="{base}/contents">Choose what goes</a>
          </li>{/each}
      </ul>
      {#if trouble}<p class="text-brick mt-2" role="alert">{trouble}</p>{/if}
      {#each plan?.troubles ?? [] as said, n (n)}<p class="text-brick mt-2" role="alert">{said}</p>{/each}
      {#if plan && plan.troubles.length === 0 && landings.length > 0}<div class="mt-3">
          <Button href="{base}/send" size="sm" color="primary">On to Send</Button>
        </div>{/if}
    </section>
    <SectionsPanel {outline} {landings} ondrop={drop} />
  </div>
{/if}
