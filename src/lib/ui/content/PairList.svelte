<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import type { Showing } from './answers.svelte';

  interface Props {
    options: readonly { id: string; text: string }[];
    response: string;
    /** 0 means any number. */
    most: number;
    show: Showing;
  }
  let { options, response, most, show }: Props = $props();
  const live = $derived(show.sheet?.live ?? false);
  const pairs = $derived((show.sheet?.of(response) ?? []).map(String));
  let first = $state('');
  let second = $state('');
  const name = (id: string): string => options.find((o) => o.id === id)?.text ?? id;
  function add(): void {
    show.sheet?.set(response, [...pairs, `${first} ${second}`]);
    first = second = '';
  }
</script>

<ul class="list-none! p-0! font-sans text-[14.5px]">
  {#each pairs as pair, at (at)}
    {@const [a = '', b = ''] = pair.split(' ')}
    <li class="border-hair flex items-center gap-2 border-b py-1">
      <span>{name(a)} – {name(b)}</span>
      {#if live}<button
          type="button"
          class="text-quiet hover:text-ink ml-auto"
          aria-label="Take apart: {name(a)} and {name(b)}"
          onclick={() =>
            show.sheet?.set(
              response,
              pairs.filter((_, k) => k !== at),
            )}><X size={15} /></button
        >{/if}
    </li>
  {/each}
</ul>
{#if live && (most === 0 || pairs.length < most)}
  <div class="mt-2 flex flex-wrap items-center gap-2 font-sans text-[14px]">
    {#each ['first', 'second'] as which (which)}
      <select
        aria-label="The {which} of a pair"
        class="border-quiet bg-surface text-ink rounded border py-0.5"
        value={which === 'first' ? first : second}
        onchange={(e) => {
          if (which === 'first') first = e.currentTarget.value;
          else second = e.currentTarget.value;
        }}
      >
        <option value="">choose</option>
        {#each options as option, n (n)}<option value={option.id}>{option.text}</option>{/each}
      </select>
    {/each}
    <button
      type="button"
      class="act disabled:text-quiet"
      disabled={first === '' || second === '' || first === second}
      onclick={add}>Pair them</button
    >
  </div>
{:else if !live}
  <p class="text-quiet font-sans text-[14px]">{options.map((o) => o.text).join(' / ')}</p>
{/if}
