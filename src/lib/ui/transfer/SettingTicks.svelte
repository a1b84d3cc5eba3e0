<script lang="ts">
  import type { SettingName } from '@alforja/core';
  import type { TransferOptions } from '$lib/shared/transfers';
  import { command } from './command';

  interface Props {
    transferId: string;
    options: TransferOptions;
    /** Whether they land in a course, which has more to set than a package can carry. */
    toCourse: boolean;
  }
  let { transferId, options, toCourse }: Props = $props();
  let trouble = $state('');
  const all: readonly { readonly key: SettingName; readonly says: string; readonly course?: true }[] = [
    { key: 'dates', says: 'Dates' },
    { key: 'attempts', says: 'Number of attempts' },
    { key: 'timeLimit', says: 'Time limit' },
    { key: 'passMark', says: 'Pass mark' },
    { key: 'instructions', says: 'Instructions' },
    { key: 'review', says: 'When answers may be reviewed', course: true },
    { key: 'visibility', says: 'Shown or hidden, as in the source', course: true },
  ];
  const names = $derived(all.filter((n) => toCourse || !n.course));
  const label = (n: (typeof all)[number]): string =>
    n.key === 'dates' && toCourse ? 'Dates, moved to the new term' : n.says;
  async function set(key: SettingName, on: boolean): Promise<void> {
    const settings = { ...options.settings, [key]: on };
    trouble = await command(transferId, { do: 'options', options: { ...options, settings } });
  }
</script>

<fieldset class="border-hair bg-surface border px-4 pt-2 pb-3">
  <legend class="float-left mb-1 w-full text-[14px] font-semibold">Quiz settings to include</legend>
  {#each names as n (n.key)}
    <label class="clear-both flex cursor-pointer items-center gap-2.5 py-0.5">
      <input
        type="checkbox"
        class="border-quiet text-agave size-[15px] rounded-sm dark:bg-transparent"
        checked={options.settings[n.key]}
        onchange={(e) => set(n.key, e.currentTarget.checked)}
      />
      {label(n)}
    </label>
  {/each}
  {#if toCourse && !options.settings.visibility}<p class="text-quiet mt-1 text-[12.5px]">
      What arrives stays hidden from students until you show it.
    </p>{/if}
  {#if trouble}<p class="text-brick" role="alert">{trouble}</p>{/if}
</fieldset>
