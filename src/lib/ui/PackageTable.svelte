<script lang="ts">
  import type { PackageListing } from '$lib/shared/types';
  import { bytes, count, formatName, plural, when } from './format';
  import { live } from './live.svelte';
  import ThrowAway from './ThrowAway.svelte';

  interface Props {
    packages: readonly PackageListing[];
    /** Whether they can be thrown away from here. */
    throwing?: boolean;
  }
  let { packages, throwing = false }: Props = $props();
  /** What a package holds, in a few words; nothing that it has none of. */
  function holds({ quizzes, banks, rubrics }: NonNullable<PackageListing['summary']>): string {
    const parts = [
      quizzes > 0 ? plural(quizzes, 'quiz', 'quizzes') : '',
      banks > 0 ? plural(banks, 'bank') : '',
      rubrics > 0 ? plural(rubrics, 'rubric') : '',
    ];
    return parts.filter((p) => p !== '').join(', ');
  }
</script>

<table class="border-hair bg-surface w-full border text-left max-md:block">
  <thead class="text-quiet border-hair border-b text-[12.5px] max-md:sr-only">
    <tr>
      <th class="px-4 py-1.5 font-semibold">Package</th>
      <th class="px-3 py-1.5 font-semibold">Format</th>
      <th class="px-3 py-1.5 text-right font-semibold">Items</th>
      <th class="px-3 py-1.5 text-right font-semibold">Points</th>
      <th class="px-3 py-1.5 font-semibold">Findings</th>
      <th class="px-3 py-1.5 font-semibold">Came in</th>
      {#if throwing}<td></td>{/if}
    </tr>
  </thead>
  <tbody class="max-md:block">
    {#each packages as held (held.id)}
      {@const job = live.jobOf(held.id)}
      {@const s = held.summary}
      <tr class="border-hair hover:bg-wash border-b last:border-0 max-md:block max-md:px-4 max-md:py-1.5">
        <td class="max-w-[300px] px-4 py-1.5 max-md:block max-md:max-w-none max-md:p-0">
          <a
            href="/packages/{held.id}"
            class="block truncate font-serif text-[15.5px] hover:underline"
            dir="auto">{held.name}</a
          >
          <span class="text-quiet block truncate text-[12.5px]" dir="auto"
            >{s?.title && s.title !== held.name ? `${s.title} · ` : ''}{bytes(
              held.bytes,
            )}{#if held.changed > 0}
              ·
              <span class="text-saddle font-semibold">{count(held.changed)} changed</span>{/if}</span
          >
        </td>
        <td class="px-3 py-1.5 max-md:block max-md:p-0">
          {#if s}{formatName(s.format)}
            <span class="text-quiet block text-[12.5px]">{holds(s) || 'nothing that could be read'}</span>
          {:else if held.state === 'failed'}<span class="text-brick">{held.failure?.message}</span>
          {:else}<span class="text-quiet">{job?.step || 'waiting to be read'}</span>{/if}
        </td>
        <td class="num px-3 py-1.5 text-right max-md:hidden">{s && s.items > 0 ? count(s.items) : ''}</td>
        <td class="num px-3 py-1.5 text-right max-md:hidden">{s && s.items > 0 ? count(s.points) : ''}</td>
        <td class="px-3 py-1.5 max-md:hidden">
          {#if s}
            {#if s.errors + s.warnings === 0}<span class="text-quiet">none</span>
            {:else if held.settledAt !== null}<span class="text-quiet"
                >{count(s.errors + s.warnings)}, dealt with</span
              >
            {:else}
              {#if s.errors > 0}<span class="text-brick font-semibold">{plural(s.errors, 'error')}</span>{/if}
              {#if s.warnings > 0}<span class="text-ochre font-semibold">{plural(s.warnings, 'warning')}</span
                >{/if}
            {/if}
          {/if}
        </td>
        <td class="text-quiet px-3 py-1.5 whitespace-nowrap max-md:hidden">{when(held.broughtAt)}</td>
        {#if throwing}<td class="w-9 pr-2 max-md:hidden"
            >{#if held.state !== 'reading'}<ThrowAway kind="package" id={held.id} name={held.name} />{/if}</td
          >{/if}
      </tr>
    {/each}
  </tbody>
</table>
