<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import Modal from 'flowbite-svelte/Modal.svelte';
  import type { PictureIn } from './pictures';

  /** A picture before it is put in: what it shows is asked for those who cannot see it. */
  let { picture, take, close }: { picture: PictureIn; take: (alt: string) => void; close: () => void } =
    $props();
  let alt = $state('');
  let open = $state(true);
  $effect(() => {
    if (!open) close();
  });
  function put(event: SubmitEvent): void {
    event.preventDefault();
    open = false;
    take(alt.trim());
  }
  function focused(box: HTMLInputElement): void {
    setTimeout(() => box.focus(), 50);
  }
</script>

<Modal bind:open title="Picture" size="sm">
  <form onsubmit={put}>
    <img src={picture.shown} alt="" class="border-hair mx-auto max-h-[220px] border" />
    <label class="text-quiet mt-3 block text-[12.5px]"
      >What it shows, for those who cannot see it<input
        use:focused
        bind:value={alt}
        dir="auto"
        maxlength="1000"
        class="border-hair bg-surface text-ink block h-8 w-full rounded border px-2 text-[14px]"
      /></label
    >
    <p class="text-quiet mt-1 text-[12.5px]">Leave it empty only where the picture is decoration.</p>
    <div class="mt-3 flex gap-3">
      <Button type="submit" color="primary">Put it in</Button>
      <Button color="alternative" onclick={() => (open = false)}>Cancel</Button>
    </div>
  </form>
</Modal>
