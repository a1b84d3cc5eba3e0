<script lang="ts">
  import type { ColumnRole } from '@alforja/core';
  import { roleChoices, withRole } from './columnRoles';

  /** The first rows of a table, with what each of its columns says. */
  let {
    rows,
    roles,
    headerRow,
    ready,
    onroles,
  }: {
    rows: readonly (readonly string[])[];
    roles: readonly ColumnRole[];
    headerRow: number;
    /** Whether it has been proposed what the columns say; until then there is nothing to change. */
    ready: boolean;
    onroles: (roles: ColumnRole[]) => void;
  } = $props();
  const SHOWN = 8;
  const width = $derived(Math.max(0, ...rows.map((r) => r.length)));
  const choices = $derived(roleChoices(width));
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="border-hair bg-surface overflow-x-auto border" role="region" aria-label="The table" tabindex="0">
  <table class="text-left text-[13px]">
    <thead>
      <tr>
        {#each { length: width }, n (n)}
          <th scope="col" class="border-hair bg-band border-r border-b px-1.5 py-1.5 font-normal">
            <select
              aria-label="What column {n + 1} says"
              disabled={!ready}
              value={roles[n] ?? 'skip'}
              onchange={(e) => onroles(withRole(roles, width, n, e.currentTarget.value as ColumnRole))}
              class="border-hair bg-surface text-ink h-7 w-[150px] rounded border py-0 text-[13px]"
              >{#each choices as [value, says] (value)}<option {value}>{says}</option>{/each}</select
            >
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each rows.slice(0, SHOWN) as row, at (at)}
        <tr class={at === headerRow ? 'font-semibold' : ''}>
          {#each { length: width }, n (n)}<td
              dir="auto"
              class="border-hair max-w-[190px] truncate border-r border-b px-2 py-1 {roles[n] === 'skip'
                ? 'text-quiet'
                : ''}">{row[n] ?? ''}</td
            >{/each}
        </tr>
      {/each}
    </tbody>
  </table>
</div>
{#if rows.length > SHOWN}<p class="text-quiet mt-1 text-[12.5px]">
    and {rows.length - SHOWN} rows more
  </p>{/if}
