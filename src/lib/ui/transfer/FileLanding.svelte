<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { landingId, type Landing, type LandingOverride } from '@alforja/core';
  import type { PlanShown } from '$lib/shared/transfers';
  import { plural } from '../format';

  interface Props {
    plan: PlanShown | null;
    /** The plan, or the one before while it is being worked out. */
    shown: PlanShown | null;
    byHand: readonly string[];
    packageId: string;
    land: (l: Landing, change: LandingOverride | null) => Promise<void>;
    base: string;
  }
  let { plan, shown, byHand, packageId, land, base }: Props = $props();
  const landings = $derived(shown?.landings ?? []);
</script>

<p class="max-w-[860px]">
  This transfer becomes a file with the names below. Sections and dates are settled where it is imported. To
  send it straight into a course and have the arrival checked,
  <a class="act" href="/bring?package={packageId}">choose the course</a>.
</p>
{#if shown === null}
  <p role="status" class="text-quiet">Calculating…</p>
{:else}
  <section aria-label="What the file holds" class="max-w-[860px]">
    <p role="status" class="text-quiet mb-2 text-[13.5px]">
      {plan ? plural(landings.length, 'thing') : 'Updating…'}
    </p>
    <ul class="border-hair bg-surface border border-b-0">
      {#each landings as l (landingId(l))}
        <li class="border-hair flex items-center gap-3 border-b px-3 py-2">
          <span class="text-quiet w-[48px] shrink-0">{l.kind}</span>
          <input
            aria-label="Name of the {l.kind} in the file"
            value={l.name}
            required
            maxlength="300"
            dir="auto"
            onchange={(e) => land(l, { name: e.currentTarget.value })}
            class="border-hair bg-paper text-ink h-8 min-w-0 grow rounded border px-2 font-serif text-[15.5px]"
          />
          {#if byHand.includes(landingId(l))}<button
              type="button"
              class="act shrink-0 text-[13px]"
              onclick={() => land(l, null)}>As in the source</button
            >{/if}
        </li>
      {:else}<li class="border-hair border-b px-4 py-3">
          No quiz, bank, link or rubric is ticked. <a class="act" href="{base}/contents"
            >Choose what to include</a
          >
        </li>{/each}
    </ul>
    {#if plan && plan.troubles.length === 0}<div class="mt-3">
        <Button href="{base}/send" color="primary">Next: Send</Button>
      </div>{/if}
  </section>
{/if}
