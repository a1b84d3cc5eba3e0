<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { ForecastLoss } from '$lib/shared/transfers';
  import { count } from '../format';

  type Way = NonNullable<ForecastLoss['avoid']>;
  /** The same change for one or several items; where scores change by it, it has to be said twice. */
  let { ways, avoid }: { ways: readonly Way[]; avoid: (at: readonly number[]) => Promise<void> } = $props();
  const first = $derived(ways[0]!);
  let asked = $state(false);
  let busy = $state(false);
  async function press(): Promise<void> {
    if (first.scores !== null && !asked) return void (asked = true);
    busy = true;
    asked = false;
    await avoid(ways.map((w) => w.at)).finally(() => (busy = false));
  }
  const says = $derived(ways.length === 1 ? 'Put right' : `Put all ${count(ways.length)} right`);
</script>

<div class="mt-1 mb-1 text-[13.5px]" data-testid="avoid">
  <p dir="auto">
    Avoided by a change of what goes: {first.says}.
    {#if first.scores !== null}<span class="text-ochre font-semibold"
        >Scores change: {first.scores}{ways.length > 1 ? ', and others' : ''}.</span
      >{:else}<span class="text-quiet">Every answer scores as before.</span>{/if}
  </p>
  <div class="mt-1 flex flex-wrap items-center gap-3">
    <Button size="xs" color={asked ? 'primary' : 'alternative'} disabled={busy} onclick={press}
      >{asked ? 'Yes, change the scores' : says}</Button
    >
    {#if asked}<button type="button" class="act" onclick={() => (asked = false)}>Leave it</button>{/if}
  </div>
</div>
