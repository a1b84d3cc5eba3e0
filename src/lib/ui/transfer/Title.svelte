<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { command } from './command';

  /** The name of a transfer, changed in its place. */
  let { transferId, title }: { transferId: string; title: string } = $props();
  let renaming = $state(false);
  let trouble = $state('');
  async function keep(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const given = new FormData(event.target as HTMLFormElement).get('title');
    trouble = await command(transferId, { do: 'rename', title: String(given) });
    if (!trouble) renaming = false;
  }
</script>

{#if renaming}
  <form onsubmit={keep} class="flex items-center gap-2">
    <!-- svelte-ignore a11y_autofocus -->
    <input
      name="title"
      aria-label="Name of the transfer"
      value={title}
      required
      maxlength="200"
      autofocus
      class="border-hair bg-surface text-ink h-8 w-[320px] rounded border px-2 font-serif text-[17px]"
      onkeydown={(e) => e.key === 'Escape' && (renaming = false)}
    />
    <Button type="submit" color="alternative">Save</Button>
    {#if trouble}<span class="text-brick" role="alert">{trouble}</span>{/if}
  </form>
{:else}
  <h1 class="page-title" dir="auto">{title}</h1>
  <button
    type="button"
    class="text-quiet hover:text-ink min-h-6 text-[12.5px]"
    onclick={() => (renaming = true)}>Rename</button
  >
{/if}
