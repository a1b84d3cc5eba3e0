<script lang="ts">
  /** Takes something as it is, for a reason that is asked first. */
  interface Props {
    /** Said to those who hear the button among many. */
    what: string;
    onaccept: (reason: string) => Promise<void>;
  }
  let { what, onaccept }: Props = $props();
  let asking = $state(false);
  let reason = $state('');
  async function accept(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    await onaccept(reason);
    asking = false;
  }
</script>

{#if asking}
  <form class="flex items-center gap-2" onsubmit={accept}>
    <!-- svelte-ignore a11y_autofocus -->
    <input
      aria-label="Why it is taken as it is"
      placeholder="Reason for accepting"
      required
      maxlength="500"
      autofocus
      bind:value={reason}
      onkeydown={(e) => e.key === 'Escape' && (asking = false)}
      class="border-hair bg-surface text-ink placeholder:text-quiet h-7 w-[220px] rounded border px-2 text-[13px]"
    />
    <button type="submit" class="act min-h-6">Accept</button>
  </form>
{:else}<button type="button" class="act min-h-6" onclick={() => (asking = true)}
    >Accept…<span class="sr-only">: {what}</span></button
  >{/if}
