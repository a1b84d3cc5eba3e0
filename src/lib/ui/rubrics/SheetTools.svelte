<script lang="ts">
  import type { RubricMode } from '@alforja/core';
  import Button from 'flowbite-svelte/Button.svelte';
  import type { RubricSheet } from './sheet.svelte';

  /** What can be done to the criterion, the level and the whole of a rubric. */
  let { sheet, done }: { sheet: RubricSheet; done: () => void } = $props();
  const r = $derived(sheet.rubric);
  const at = $derived(sheet.cursor);
  const none = $derived(sheet.rows === 0);

  const groups = $derived([
    {
      name: 'Criterion',
      tools: [
        { says: 'Add below', off: false, act: () => sheet.addCriterion() },
        { says: 'Duplicate', off: none, act: () => sheet.duplicateCriterion() },
        { says: 'Up', off: at.row === 0, act: () => sheet.shiftCriterion(-1) },
        { says: 'Down', off: at.row + 1 >= sheet.rows, act: () => sheet.shiftCriterion(1) },
        { says: 'Delete', off: none, act: () => sheet.removeCriterion() },
      ],
    },
    {
      name: 'Level',
      tools: [
        { says: 'Add after', off: none, act: () => sheet.addLevel() },
        { says: 'Duplicate', off: at.col === 0, act: () => sheet.duplicateLevel() },
        { says: 'Left', off: at.col < 2, act: () => sheet.shiftLevel(-1) },
        { says: 'Right', off: at.col === 0 || at.col >= sheet.columns - 1, act: () => sheet.shiftLevel(1) },
        { says: 'Delete', off: at.col === 0, act: () => sheet.removeLevel() },
      ],
    },
  ]);
  function use(act: () => void): void {
    act();
    done();
  }
</script>

<div
  class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2 text-[13.5px]"
  role="group"
  aria-label="Change the rubric"
>
  {#each groups as group (group.name)}
    <span class="flex items-center gap-2.5"
      ><span class="text-quiet">{group.name}</span>
      {#each group.tools as tool (tool.says)}<button
          type="button"
          class="act disabled:text-quiet disabled:no-underline"
          disabled={tool.off}
          onclick={() => use(tool.act)}>{tool.says}</button
        >{/each}
    </span>
  {/each}
  <label class="flex items-center gap-2"
    ><span class="text-quiet">Scoring</span>
    <select
      class="border-hair bg-surface text-ink h-7 rounded border py-0 text-[13.5px]"
      value={r.mode}
      onchange={(e) => use(() => sheet.change({ ...r, mode: e.currentTarget.value as RubricMode }))}
      ><option value="points">by points</option><option value="percentage">in percent</option><option
        value="unscored">none</option
      ></select
    ></label
  >
  <label class="flex items-center gap-2"
    ><input
      type="checkbox"
      checked={r.freeComments ?? false}
      onchange={(e) => use(() => sheet.change({ ...r, freeComments: e.currentTarget.checked }))}
      class="border-quiet text-agave size-[15px] rounded-sm dark:bg-transparent"
    />Free comments</label
  >
  <span class="ml-auto flex items-center gap-2.5">
    <span class="text-quiet" role="status">{sheet.saved === 'kept' ? 'Saved' : 'Saving…'}</span>
    <Button color="alternative" disabled={!sheet.canUndo} onclick={() => sheet.undo()}>Undo</Button>
    <Button color="alternative" disabled={!sheet.canRedo} onclick={() => sheet.redo()}>Redo</Button>
  </span>
</div>
