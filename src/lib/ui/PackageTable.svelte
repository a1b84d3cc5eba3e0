<script lang="ts">
  import type { PackageListing } from '$lib/shared/types';
  import { bytes, count, formatName, plural, when } from './format';
  import { live } from './live.svelte';

  let { packages }: { packages: readonly PackageListing[] } = $props();
</script>

<table class="border-hair bg-surface w-full border text-left">
  <thead class="text-quiet border-hair border-b text-[12.5px]">
    <tr>
      <th class="px-4 py-2 font-semibold">Package</th>
      <th class="px-3 py-2 font-semibold">What it is</th>
      <th class="px-3 py-2 text-right font-semibold">Items</th>
      <th class="px-3 py-2 text-right font-semibold">Points</th>
      <th class="px-3 py-2 font-semibold">Findings</th>
      <th class="px-4 py-2 font-semibold">Came in</th>
    </tr>
  </thead>
  <tbody>
    {#each packages as held (held.id)}
      {@const job = live.jobOf(held.id)}
      <tr class="border-hair hover:bg-wash border-b last:border-0">
        <td class="max-w-[280px] px-4 py-2">
          <a href="/packages/{held.id}" class="block truncate font-serif text-[15.5px] hover:underline"
            >{held.name}</a
          >
          <span class="text-quiet block truncate text-[12.5px]"
            >{held.summary?.title && held.summary.title !== held.name
              ? held.summary.title
              : bytes(held.bytes)}</span
          >
        </td>
        <td class="px-3 py-2">
          {#if held.summary}{formatName(held.summary.format)}
            <span class="text-quiet block text-[12.5px]"
              >{held.summary.rubrics
                ? plural(held.summary.rubrics, 'rubric')
                : `${plural(held.summary.quizzes, 'quiz', 'quizzes')}, ${plural(held.summary.banks, 'bank')}`}</span
            >
          {:else if held.state === 'failed'}<span class="text-brick">{held.failure?.message}</span>
          {:else}<span class="text-quiet">{job?.step || 'waiting to be read'}</span>{/if}
        </td>
        <td class="num px-3 py-2 text-right">{held.summary ? count(held.summary.items) : ''}</td>
        <td class="num px-3 py-2 text-right">{held.summary ? count(held.summary.points) : ''}</td>
        <td class="px-3 py-2">
          {#if held.summary}
            {#if held.summary.errors + held.summary.warnings === 0}<span class="text-quiet"
                >none to decide</span
              >{/if}
            {#if held.summary.errors > 0}<span class="text-brick font-semibold"
                >{plural(held.summary.errors, 'error')}</span
              >{/if}
            {#if held.summary.warnings > 0}<span class="text-ochre font-semibold"
                >{plural(held.summary.warnings, 'warning')}</span
              >{/if}
          {/if}
        </td>
        <td class="text-quiet px-4 py-2 whitespace-nowrap">{when(held.broughtAt)}</td>
      </tr>
    {/each}
  </tbody>
</table>
