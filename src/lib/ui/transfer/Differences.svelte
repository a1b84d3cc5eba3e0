<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { plural, readable, when } from '../format';
  import { command } from './command';
  import type { Judged } from './types';

  interface Props {
    transferId: string;
    differences: readonly Judged[];
    notes: readonly string[];
    running: boolean;
  }
  let { transferId, differences, notes, running }: Props = $props();
  let trouble = $state('');
  let reasons = $state<Record<string, string>>({});
  let asking = $state<string | null>(null);
  const isItem = (d: Judged): boolean => d.key.startsWith('item ');
  const open = $derived(differences.filter((d) => d.decision === null));
  const accepted = $derived(differences.filter((d) => d.decision !== null));
  const single = $derived(open.filter((d) => !isItem(d)));
  const items = $derived(open.filter(isItem));
  const setable = $derived(open.filter((d) => d.mend === 'set' || d.mend === 'remove' || d.mend === 'renew'));
  const sendable = $derived(open.filter((d) => d.mend === 'resend'));
  const verbs = {
    set: 'Set it there',
    remove: 'Take it out there',
    resend: 'Send again',
    renew: 'Make it anew there',
  } as const;
  const ask = async (body: Record<string, unknown>): Promise<void> => {
    trouble = await command(transferId, body);
    asking = null;
  };
  const keys = (list: readonly Judged[]): string[] => list.map((d) => d.key);
</script>

{#snippet accept(id: string, list: readonly Judged[])}
  {#if asking === id}
    <form
      class="flex items-center gap-2"
      onsubmit={(e) => {
        e.preventDefault();
        void ask({ do: 'decide', keys: keys(list), reason: reasons[id] ?? '' });
      }}
    >
      <!-- svelte-ignore a11y_autofocus -->
      <input
        aria-label="Why it is taken as it is"
        placeholder="Why is it right like this?"
        required
        maxlength="500"
        autofocus
        bind:value={reasons[id]}
        onkeydown={(e) => e.key === 'Escape' && (asking = null)}
        class="border-hair bg-surface text-ink placeholder:text-quiet h-7 w-[220px] rounded border px-2 text-[13px]"
      />
      <button type="submit" class="act">Accept</button>
    </form>
  {:else}<button type="button" class="act" onclick={() => (asking = id)}>Accept…</button>{/if}
{/snippet}

{#each notes as note, n (n)}<p class="text-saddle text-[13.5px]">{note}</p>{/each}
{#if differences.length > 0}
  <section
    class="border-hair bg-surface max-h-[27vh] shrink-0 overflow-y-auto border"
    aria-label="Not as planned"
  >
    <div class="border-hair bg-surface sticky top-0 flex flex-wrap items-center gap-3 border-b px-4 py-1.5">
      <h2 class="text-[14px]">
        {open.length === 0 ? 'Everything is settled' : `${plural(open.length, 'thing')} not as planned`}
      </h2>
      {#if running}<span role="status" class="text-quiet">being looked at again…</span>{/if}
      <span class="ml-auto flex gap-2">
        {#if setable.length > 0}<Button
            size="xs"
            color="primary"
            disabled={running}
            onclick={() => ask({ do: 'mend', keys: keys(setable) })}
            >Mend what can be set there ({setable.length})</Button
          >{/if}
        {#if sendable.length > 0}<Button
            size="xs"
            color="alternative"
            disabled={running}
            onclick={() => ask({ do: 'mend', keys: keys(sendable) })}
            >Send again what is missing or altered ({sendable.length})</Button
          >{/if}
      </span>
    </div>
    {#if trouble}<p class="text-brick px-4 py-1.5" role="alert">{trouble}</p>{/if}
    <ul>
      {#each single as d (d.key)}
        <li
          class="border-hair grid grid-cols-[minmax(0,1fr)_minmax(0,1.5fr)_auto] items-baseline gap-x-4 border-b px-4 py-1.5 last:border-0 max-md:grid-cols-1"
        >
          <span class="truncate font-serif text-[15px]" dir="auto" title={d.what}>{d.what}</span>
          <span class="text-[13.5px]"
            ><span class="text-quiet">planned</span>
            {readable(d.planned) || 'nothing'}
            <span class="text-quiet">· found</span>
            <b class="text-brick">{readable(d.found) || 'nothing'}</b></span
          >
          <span class="flex items-baseline gap-4 whitespace-nowrap text-[13.5px]">
            {#if d.mend}<button
                type="button"
                class="act disabled:text-quiet"
                disabled={running}
                onclick={() => ask({ do: 'mend', keys: [d.key] })}>{verbs[d.mend]}</button
              >{/if}
            {@render accept(d.key, [d])}
          </span>
        </li>
      {/each}
      {#if items.length > 0}
        <li class="border-hair flex flex-wrap items-baseline gap-x-4 border-b px-4 py-1.5 last:border-0">
          <span
            >{plural(items.length, 'question')} altered; the seam below shows each, unfolded by Enter.</span
          >
          <span class="ml-auto text-[13.5px]">{@render accept('items', items)}</span>
        </li>
      {/if}
      {#each accepted as d (d.key)}
        <li class="border-hair flex flex-wrap items-baseline gap-x-4 border-b px-4 py-1.5 last:border-0">
          <span class="text-quiet truncate" dir="auto">{d.what}: {d.found || 'nothing'}</span>
          <span class="text-[13px]"
            >accepted by {d.decision!.by}, {when(d.decision!.at)}: “{d.decision!.reason}”</span
          >
          <button
            type="button"
            class="act ml-auto text-[13.5px]"
            onclick={() => ask({ do: 'decide', keys: [d.key], reason: '' })}>Open it again</button
          >
        </li>
      {/each}
    </ul>
  </section>
{/if}
