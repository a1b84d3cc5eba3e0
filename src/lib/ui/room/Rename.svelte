<script lang="ts">
  import { tick } from 'svelte';

  /** Another name for a thing of a list, typed in its place. */
  let { value, what = value, take }: { value: string; what?: string; take: (to: string) => void } = $props();
  let open = $state(false);
  let typed = $state('');
  let opener = $state<HTMLButtonElement>();
  function begin(): void {
    typed = value;
    open = true;
  }
  async function end(): Promise<void> {
    open = false;
    await tick();
    opener?.focus();
  }
  function put(event: SubmitEvent): void {
    event.preventDefault();
    const to = typed.trim();
    if (to !== '' && to !== value) take(to);
    void end();
  }
  function focused(box: HTMLInputElement): void {
    box.focus();
    box.select();
  }
</script>

{#if open}
  <form class="flex min-w-0 grow items-center gap-2" onsubmit={put}>
    <input
      use:focused
      class="border-hair bg-surface text-ink h-7 min-w-0 grow rounded border px-2 text-[13.5px]"
      dir="auto"
      aria-label="Another name for {what}"
      maxlength="1000"
      bind:value={typed}
      onkeydown={(e) => {
        if (e.key === 'Escape') void end();
      }}
    />
    <button type="submit" class="act text-[13px]">Keep</button>
    <button type="button" class="act text-[13px]" onclick={end}>As it was</button>
  </form>
{:else}<button
    type="button"
    class="act shrink-0 text-[13px]"
    aria-label="Rename… {what}"
    bind:this={opener}
    onclick={begin}>Rename…</button
  >{/if}
