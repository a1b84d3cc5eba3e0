<script lang="ts">
  import Modal from 'flowbite-svelte/Modal.svelte';
  import Kbd from 'flowbite-svelte/Kbd.svelte';

  let { open = $bindable(false) }: { open?: boolean } = $props();
  const keys = [
    ['/', 'or Ctrl K', 'find a course, a package or an item'],
    ['↑ ↓', '', 'move in a list'],
    ['Enter', '', 'open, or unfold a row'],
    ['Space', '', 'tick'],
    ['Esc', '', 'close'],
    ['N', '', 'next difference, in the arrival check'],
    ['?', '', 'this list'],
  ];
</script>

<Modal bind:open title="Keys" size="xs">
  <dl class="grid grid-cols-[auto_1fr] items-baseline gap-x-4 gap-y-2">
    {#each keys as [key, also, what] (key)}
      <dt>
        <Kbd class="border-hair bg-paper text-ink border px-1.5 py-0.5 text-[12px] dark:bg-transparent"
          >{key}</Kbd
        > <span class="text-quiet">{also}</span>
      </dt>
      <dd>{what}</dd>
    {/each}
  </dl>
</Modal>
