<script lang="ts">
  import Modal from 'flowbite-svelte/Modal.svelte';
  import type { EditWay, StepView } from '$lib/shared/edits';
  import { count, plural, when } from '../format';
  import { live } from '../live.svelte';
  import type { Changes } from './changes.svelte';

  /** Everything that was put right, step by step, the latest first; each can be taken back. */
  let { open = $bindable(), changes }: { open: boolean; changes: Changes } = $props();
  const WAYS: Readonly<Record<EditWay, string>> = {
    hand: 'in place',
    sheet: 'in the sheet',
    replace: 'find and replace',
    workbook: 'from a workbook',
    repair: 'repair',
  };
  let steps = $state.raw<readonly StepView[] | null>(null);
  $effect(() => {
    // Asked for again whenever the package has been read again.
    void live.active.length;
    void changes.history().then((h) => (steps = h));
  });
  async function turn(step: StepView): Promise<void> {
    await changes.takeBack(step.id, step.undoneAt === null);
    steps = await changes.history();
  }
</script>

<Modal bind:open title="What was changed" size="lg">
  {#if changes.trouble}<p class="text-brick" role="alert">{changes.trouble}</p>{/if}
  {#if steps === null}<p class="text-quiet" role="status">Looking it up…</p>
  {:else if steps.length === 0}<p>
      Nothing yet. Change an item where it stands, in the sheet, or by the repairs beside what was found. The
      file itself stays as it came.
    </p>{/if}
  <ol aria-label="Changes, the latest first">
    {#each steps ?? [] as step (step.id)}
      <li class="border-hair border-b py-2 {step.undoneAt === null ? '' : 'opacity-70'}">
        <div class="flex items-baseline gap-3">
          <span class={step.undoneAt === null ? 'font-semibold' : 'line-through'}
            >{step.takesBack > 0
              ? `${plural(step.takesBack, 'change')} taken back`
              : plural(step.count, 'change')}</span
          >
          <span class="text-quiet text-[13px]">{WAYS[step.way]} · {when(step.madeAt)}</span>
          {#if step.refused > 0}<span class="text-ochre text-[13px] font-semibold"
              >{count(step.refused)} to be looked at</span
            >{/if}
          <button
            type="button"
            class="act ml-auto shrink-0"
            disabled={changes.busy}
            onclick={() => turn(step)}>{step.undoneAt === null ? 'Take back' : 'Bring back'}</button
          >
        </div>
        <ul class="text-[13.5px]">
          {#each step.edits as edit, n (n)}
            <li class="py-0.5">
              <span class="font-serif" dir="auto">{edit.name}</span>:
              <span dir="auto">{edit.says}</span>
              {#if edit.refused}<div class="text-ochre">Not done: {edit.refused}</div>{/if}
            </li>
          {/each}
          {#if step.count > step.edits.length}<li class="text-quiet">
              and {count(step.count - step.edits.length)} more
            </li>{/if}
        </ul>
      </li>
    {/each}
  </ol>
</Modal>
