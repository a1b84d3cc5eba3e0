<script lang="ts">
  import type { SettingName } from '@alforja/core';
  import type { TransferOptions } from '$lib/shared/courses';
  import { command } from './command';

  let { transferId, options }: { transferId: string; options: TransferOptions } = $props();
  let trouble = $state('');
  const names: readonly { readonly key: SettingName; readonly says: string }[] = [
    { key: 'dates', says: 'Dates, moved to the new term' },
    { key: 'attempts', says: 'Number of attempts' },
    { key: 'timeLimit', says: 'Time limit' },
    { key: 'passMark', says: 'Pass mark' },
    { key: 'instructions', says: 'Instructions' },
    { key: 'review', says: 'When answers may be reviewed' },
    { key: 'visibility', says: 'Shown or hidden, as in the source' },
  ];
  async function set(key: SettingName, on: boolean): Promise<void> {
    const settings = { ...options.settings, [key]: on };
    trouble = await command(transferId, { do: 'options', options: { ...options, settings } });
  }
</script>

<fieldset class="border-hair bg-surface border px-4 pt-2 pb-3">
  <legend class="float-left mb-1 w-full text-[14px] font-semibold">Settings of quizzes that come along</legend
  >
  {#each names as { key, says } (key)}
    <label class="clear-both flex cursor-pointer items-center gap-2.5 py-0.5">
      <input
        type="checkbox"
        class="border-quiet text-agave size-[15px] rounded-sm dark:bg-transparent"
        checked={options.settings[key]}
        onchange={(e) => set(key, e.currentTarget.checked)}
      />
      {says}
    </label>
  {/each}
  {#if !options.settings.visibility}<p class="text-quiet mt-1 text-[12.5px]">
      What arrives stays hidden from students until you show it.
    </p>{/if}
  {#if trouble}<p class="text-brick" role="alert">{trouble}</p>{/if}
</fieldset>
