<script lang="ts">
  interface Props {
    /** The row that names the columns, from 0; -1 where none does. */
    headerRow: number;
    /** How many rows there are. */
    rows: number;
    choose: (row: number) => void;
  }
  let { headerRow, rows, choose }: Props = $props();
  const LOOKED_AT = 10;
</script>

<fieldset class="flex flex-wrap items-center gap-x-3">
  <legend class="float-left mr-3 font-semibold">Is the first row the header?</legend>
  <label class="flex min-h-6 items-center gap-1.5"
    ><input
      type="radio"
      name="header"
      class="border-quiet text-agave size-[15px] dark:bg-transparent"
      checked={headerRow >= 0}
      onchange={() => choose(0)}
    />{headerRow > 0 ? `Yes, row ${headerRow + 1}` : 'Yes'}</label
  >
  <label class="flex min-h-6 items-center gap-1.5"
    ><input
      type="radio"
      name="header"
      class="border-quiet text-agave size-[15px] dark:bg-transparent"
      checked={headerRow < 0}
      onchange={() => choose(-1)}
    />No, it is a criterion</label
  >
</fieldset>
{#if rows > 1}<label class="text-quiet flex items-center gap-2 text-[13px]"
    >or row <select
      aria-label="The row of the header"
      class="border-hair bg-surface text-ink h-7 rounded border py-0 text-[13px]"
      value={headerRow}
      onchange={(e) => choose(Number(e.currentTarget.value))}
      ><option value={-1}>none</option>{#each { length: Math.min(rows, LOOKED_AT) }, n (n)}<option value={n}
          >{n + 1}</option
        >{/each}</select
    ></label
  >{/if}
