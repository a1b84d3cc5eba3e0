<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { ask } from './ask';
  import { live } from './live.svelte';

  /** Connects something by its address and a token. */
  let {
    title,
    hint,
    placeholder,
    path,
  }: {
    title: string;
    hint: string;
    placeholder: string;
    /** Where address and token are sent. */
    path: string;
  } = $props();
  let address = $state('');
  let token = $state('');
  let trouble = $state('');
  let busy = $state(false);

  async function connect(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    try {
      await ask(path, { address, token });
      address = token = trouble = '';
    } catch (error) {
      trouble = (error as Error).message;
    }
    busy = false;
    await live.reload();
  }
</script>

<section class="border-hair bg-surface max-w-[640px] border px-5 py-4" aria-labelledby="connect">
  <h2 id="connect" class="text-[15px]">{title}</h2>
  <p class="text-quiet mt-1">{hint}</p>
  <form onsubmit={connect} class="mt-3 grid gap-3">
    <label class="grid gap-1"
      >Address <input
        type="url"
        required
        bind:value={address}
        {placeholder}
        class="border-hair bg-surface text-ink h-9 rounded border px-2.5"
      /></label
    >
    <label class="grid gap-1"
      >Token <input
        type="password"
        required
        autocomplete="off"
        bind:value={token}
        class="border-hair bg-surface text-ink h-9 rounded border px-2.5"
      /></label
    >
    <div class="flex items-center gap-3">
      <Button type="submit" color="primary" disabled={busy}>Connect</Button>
      {#if trouble}<p class="text-brick" role="alert">{trouble}</p>{/if}
    </div>
  </form>
</section>
