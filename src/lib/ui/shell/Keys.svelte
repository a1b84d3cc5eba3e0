<script lang="ts">
  import { page } from '$app/state';
  import Modal from 'flowbite-svelte/Modal.svelte';
  import Kbd from 'flowbite-svelte/Kbd.svelte';
  import { keysOf } from './keys';

  let { open = $bindable(false) }: { open?: boolean } = $props();
  const groups = $derived(keysOf(page.url.pathname));
</script>

<Modal bind:open title="Keys of this page" size="xs">
  {#each groups as group (group.name)}
    <h3 class="text-quiet mt-3 mb-1 text-[12.5px] first:mt-0">{group.name}</h3>
    <dl class="grid grid-cols-[130px_1fr] items-baseline gap-x-4 gap-y-1.5">
      {#each group.keys as { key, does } (key)}
        <dt>
          <Kbd class="border-hair bg-paper text-ink border px-1.5 py-0.5 text-[12px] dark:bg-transparent"
            >{key}</Kbd
          >
        </dt>
        <dd>{does}</dd>
      {/each}
    </dl>
  {/each}
  <p class="mt-4"><a class="act" href="/help" onclick={() => (open = false)}>How a transfer works</a></p>
</Modal>
