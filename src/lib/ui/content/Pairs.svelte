<script lang="ts">
  import { optionText, optionSets, type AssociateInteraction, type MatchInteraction } from '@alforja/core';
  import Content from './Content.svelte';
  import PairList from './PairList.svelte';
  import type { Showing } from './answers.svelte';

  let { interaction, show }: { interaction: MatchInteraction | AssociateInteraction; show: Showing } =
    $props();
  const live = $derived(show.sheet?.live ?? false);
  const sets = $derived(optionSets(interaction));

  function right(match: MatchInteraction, left: string): string[] {
    const own = match.rows?.[left];
    if (own) return (show.sheet?.of(own) ?? []).map(String);
    return (show.sheet?.of(match.responseId) ?? [])
      .map(String)
      .filter((v) => v.split(' ')[0] === left)
      .map((v) => v.split(' ')[1] ?? '');
  }
  function choose(match: MatchInteraction, left: string, other: string): void {
    const own = match.rows?.[left];
    if (own) show.sheet?.set(own, other === '' ? [] : [other]);
    else show.sheet?.pair(match.responseId, left, other, 'left');
  }
</script>

<fieldset class="mt-3">
  <legend class="mb-1"><Content nodes={interaction.prompt} {show} /></legend>
  {#if interaction.kind === 'match'}
    <table class="border-0! w-full">
      <tbody>
        {#each interaction.left as row, n (n)}
          <tr>
            <th scope="row" class="border-hair border-0! border-b! py-1.5 text-left font-normal" dir="auto"
              ><Content nodes={row.content} {show} /></th
            >
            <td class="border-hair w-[48%] border-0! border-b! py-1.5">
              <select
                aria-label="Partner of {optionText({ ...row, label: '' })}"
                disabled={!live}
                value={right(interaction, row.id)[0] ?? ''}
                onchange={(e) => choose(interaction, row.id, e.currentTarget.value)}
                class="border-quiet bg-surface text-ink w-full rounded border py-0.5 text-[15px] disabled:opacity-100"
              >
                <option value="">choose</option>
                {#each sets[1] ?? [] as option, n (n)}<option value={option.id}>{optionText(option)}</option
                  >{/each}
              </select>
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if !live}<p class="text-quiet mt-1 font-sans text-[13px]">
        {(sets[1] ?? []).map(optionText).join(' / ')}
      </p>{/if}
  {:else}
    <PairList
      options={(sets[0] ?? []).map((o) => ({ id: o.id, text: optionText(o) }))}
      response={interaction.responseId}
      most={interaction.maxAssociations}
      {show}
    />
  {/if}
</fieldset>
