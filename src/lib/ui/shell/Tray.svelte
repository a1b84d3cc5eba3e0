<script lang="ts">
  import { live } from '$lib/ui/live.svelte';
  import Bell from '@lucide/svelte/icons/bell';
  import type { NoticeView } from '$lib/shared/types';
  import { when } from '../format';

  let { notices, unread }: { notices: readonly NoticeView[]; unread: number } = $props();
  let open = $state(false);
  let box = $state<HTMLElement | null>(null);
  const tones = { good: 'text-agave', look: 'text-ochre', bad: 'text-brick' } as const;
  const words = { good: 'Arrived', look: 'To check', bad: 'Stopped' } as const;

  async function toggle(): Promise<void> {
    open = !open;
    if (!open || unread === 0) return;
    await fetch('/api/notices', { method: 'POST' }).catch(() => null);
    await live.reload();
  }
</script>

<svelte:window
  onkeydown={(e) => e.key === 'Escape' && (open = false)}
  onclick={(e) => open && box && !box.contains(e.target as Node) && (open = false)}
/>
<div class="relative" bind:this={box}>
  <button
    type="button"
    class="text-quiet hover:text-ink relative grid size-7 place-items-center"
    aria-expanded={open}
    aria-label={unread > 0 ? `Notices, ${unread} new` : 'Notices'}
    onclick={toggle}
  >
    <Bell size={17} />
    {#if unread > 0}<span
        class="bg-brick num absolute -top-1 -right-1.5 min-w-[15px] rounded-full px-1 text-center text-[10.5px] font-semibold text-white dark:text-black"
        aria-hidden="true">{unread}</span
      >{/if}
  </button>
  {#if open}
    <section
      class="border-hair bg-surface absolute right-0 z-40 mt-2 max-h-[420px] w-[380px] overflow-y-auto rounded border shadow-lg max-md:w-[300px]"
      aria-label="Notices"
    >
      {#each notices as n (n.id)}
        <a
          href={n.href}
          class="border-hair hover:bg-wash block border-b px-4 py-2.5 last:border-0"
          onclick={() => (open = false)}
        >
          <span class="{tones[n.tone]} text-[12.5px] font-semibold">{words[n.tone]}</span>
          <span class="text-quiet text-[12.5px]">{when(n.at)}</span>
          <span class="block">{n.text}</span>
        </a>
      {:else}<p class="text-quiet px-4 py-3">Finished work appears here.</p>{/each}
    </section>
  {/if}
</div>
