<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { Changes } from './changes.svelte';

  /** The head of what is changed as a whole: done with it, or leave it out; and whether it is kept. */
  let {
    kind,
    node,
    changes,
    close,
  }: { kind: 'quiz' | 'bank'; node: string; changes: Changes; close: () => void } = $props();
</script>

<div class="mb-3 flex items-center gap-3">
  <Button color="primary" size="xs" onclick={close}>Done</Button>
  <button
    type="button"
    class="act text-[13px]"
    disabled={changes.busy}
    onclick={() => changes.make('hand', [{ op: 'leave-out', node, kind }])}>Leave the {kind} out</button
  >
  <span class="text-quiet ml-auto text-[12.5px]" role="status">{changes.busy ? 'Keeping…' : 'Kept'}</span>
</div>
