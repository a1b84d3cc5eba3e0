<script lang="ts">
  import Page from '$lib/ui/shell/Page.svelte';
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import Button from 'flowbite-svelte/Button.svelte';
  import type { ColumnRole } from '@alforja/core';
  import type { TableReading } from '$lib/shared/types';
  import { rubricPoints } from '@alforja/core/edit';
  import FindingNote from '$lib/ui/room/FindingNote.svelte';
  import { ask } from '$lib/ui/ask';
  import { FOUND_BY } from '$lib/ui/rubrics/columnRoles';
  import HeaderRow from '$lib/ui/rubrics/HeaderRow.svelte';
  import ColumnsTable from '$lib/ui/rubrics/ColumnsTable.svelte';
  import { takenTable } from '$lib/ui/rubrics/pasted';
  import { rowsOf, rowsOfText } from '$lib/ui/rubrics/clipboard';
  import Grid from '$lib/ui/rubrics/Grid.svelte';

  let { data } = $props();
  let rows = $state.raw<string[][]>([]);
  let title = $state('');
  let reading = $state.raw<TableReading | null>(null);
  /** As chosen so far: changes build on one another, whether the last has been answered or not. */
  let roles = $state.raw<readonly ColumnRole[]>([]);
  let headerRow = $state(-1);
  /** The reading that is on its way. */
  let coming: Promise<void> = Promise.resolve();
  /** The table of a file that is looked at: first the one that nobody could read. */
  // svelte-ignore state_referenced_locally
  let at = $state(
    Math.max(
      0,
      data.tables.findIndex((t) => t.unread),
    ),
  );
  let remember = $state(true);
  let typed = $state('');
  let trouble = $state('');
  let asked = 0;
  const placeholder = ['criterion', 'weight', 'level 1', 'points 1', 'description 1'].join('\t');

  async function readNow(proposed: boolean): Promise<void> {
    const mine = ++asked;
    const said = proposed ? { roles: null, headerRow: null } : { roles, headerRow };
    try {
      const now = await ask<TableReading>('/api/rubrics', { do: 'read', table: { rows, title, ...said } });
      if (mine !== asked) return;
      [reading, trouble] = [now, ''];
      [roles, headerRow] = [now.roles, now.headerRow];
    } catch (error) {
      if (mine === asked) trouble = (error as Error).message;
    }
  }
  /** Has the table read as it was said to be, or, where nothing was said yet, as is proposed. */
  function read(proposed = false): void {
    coming = readNow(proposed);
  }
  function choose(to: { roles?: readonly ColumnRole[]; headerRow?: number }): void {
    ({ roles, headerRow } = { roles, headerRow, ...to });
    read();
  }
  function take(given: string[][], name: string): void {
    [rows, title, reading, roles, headerRow] = [given, name, null, [], -1];
    read(true);
  }
  function paste(event: ClipboardEvent): void {
    if (!event.clipboardData) return;
    const { rows: given } = rowsOf(event.clipboardData);
    if (given.length === 0) return;
    event.preventDefault();
    take(given, title);
  }
  /** Keeps what the newest choices make of the table, once they have been read. */
  async function keep(): Promise<void> {
    await coming;
    if (!reading || reading.rubrics.length === 0) return;
    try {
      const kept = await ask<{ ids: string[]; package: string | null }>('/api/rubrics', {
        do: 'keep',
        table: { rows, title, roles, headerRow },
        remember: remember && headerRow >= 0,
        package: data.packageId,
      });
      const [first] = kept.ids;
      await goto(
        kept.package
          ? `/packages/${kept.package}`
          : kept.ids.length === 1
            ? `/rubrics/own/${first}`
            : '/rubrics',
      );
    } catch (error) {
      trouble = (error as Error).message;
    }
  }
  onMount(() => {
    const first = data.tables[at];
    const given = first ? { rows: first.rows, title: first.name } : takenTable();
    if (given) take(given.rows, given.title);
  });
</script>

<Page title="A table becomes a rubric" back={{ href: '/rubrics', name: 'Rubrics' }}>
  {#if rows.length === 0}
    <label class="grid max-w-[760px] gap-1.5"
      >Paste a table from a word processor, a spreadsheet or a page
      <textarea
        rows="10"
        dir="auto"
        bind:value={typed}
        onpaste={paste}
        class="border-hair bg-surface text-ink rounded border px-2.5 py-2 font-mono text-[13px]"
        {placeholder}></textarea></label
    >
    <div class="mt-3">
      <Button
        color="primary"
        disabled={rowsOfText(typed).length === 0}
        onclick={() => take(rowsOfText(typed), '')}>Read the table</Button
      >
    </div>
  {:else}
    <div class="mb-2 flex flex-wrap items-center gap-x-5 gap-y-2">
      {#if data.tables.length > 1}<label class="flex items-center gap-2"
          >Sheet <select
            class="border-hair bg-surface text-ink h-8 max-w-[220px] rounded border py-0 text-[13.5px]"
            bind:value={at}
            onchange={() => take(data.tables[at]!.rows, data.tables[at]!.name)}
            >{#each data.tables as t, n (n)}<option value={n}>{t.sheet}</option>{/each}</select
          ></label
        >{/if}
      <label class="flex items-center gap-2"
        >Name <input
          dir="auto"
          maxlength="300"
          placeholder="Rubric"
          bind:value={title}
          onchange={() => reading && read()}
          class="border-hair bg-surface text-ink h-8 w-[260px] rounded border px-2 font-serif text-[15.5px]"
        /></label
      >
      {#if reading}<HeaderRow
          {headerRow}
          rows={rows.length}
          choose={(row) => choose({ headerRow: row })}
        />{/if}
      {#if !data.packageId}<button
          type="button"
          class="act ml-auto"
          onclick={() => ([rows, reading, typed] = [[], null, ''])}>Another table</button
        >{/if}
    </div>
    {#if reading}<p
        class="mb-2 text-[13.5px] {reading.by === 'values' ? 'text-ochre' : 'text-quiet'}"
        role="status"
      >
        {FOUND_BY[reading.by]}
      </p>{/if}
    <ColumnsTable
      {rows}
      {roles}
      {headerRow}
      ready={reading !== null}
      onroles={(roles) => choose({ roles })}
    />
    {#if trouble || reading?.trouble}<p class="text-brick mt-3" role="alert">
        {trouble || reading?.trouble}
      </p>{/if}
    {#each reading?.rubrics ?? [] as r, n (n)}
      <h2 class="mt-4 mb-1 font-serif text-[17px]" dir="auto">{r.title}</h2>
      <Grid rubric={r} points={rubricPoints(r)} />
    {/each}
    {#each reading?.findings ?? [] as found, at (at)}<div class="mt-3"><FindingNote {found} /></div>{/each}
    {#if reading && reading.rubrics.length > 0}
      <div class="mt-4 flex flex-wrap items-center gap-4">
        <Button color="primary" onclick={keep}
          >{reading.rubrics.length === 1
            ? 'Keep this rubric'
            : `Keep these ${reading.rubrics.length} rubrics`}</Button
        >
        {#if reading.headerRow >= 0}<label class="flex items-center gap-2"
            ><input
              type="checkbox"
              bind:checked={remember}
              class="border-quiet text-agave size-[15px] rounded-sm dark:bg-transparent"
            />Always read tables with this header like this</label
          >{/if}
      </div>
    {/if}
  {/if}
</Page>
