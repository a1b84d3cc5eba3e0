<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import Modal from 'flowbite-svelte/Modal.svelte';
  import { bringFiles } from '../live.svelte';

  /** Questions pasted out of a document, a mail or a page: taken like a file, with their looks where these come along. */
  let { close }: { close: () => void } = $props();
  const EXAMPLE = ['1. Which side is port?', 'a. left', 'b. right', 'Answer: a'].join('\n');
  let open = $state(true);
  let text = $state('');
  /** What was pasted with its looks, and its text; what is typed over it is text alone. */
  let rich = $state.raw<{ readonly html: string; readonly text: string } | null>(null);
  const asPasted = $derived(rich !== null && rich.text === text);

  $effect(() => {
    if (!open) close();
  });
  function paste(event: ClipboardEvent): void {
    const html = event.clipboardData?.getData('text/html') ?? '';
    const plain = event.clipboardData?.getData('text/plain') ?? '';
    if (html === '' || plain === '' || text !== '') return;
    event.preventDefault();
    // Line ends are those the box itself gives back.
    text = plain.replace(/\r\n?/gu, '\n');
    rich = { html, text };
  }
  async function take(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const file =
      rich !== null && asPasted
        ? new File([`<!doctype html><meta charset="utf-8">${rich.html}`], 'Pasted questions.html')
        : new File([text], 'Pasted questions.txt');
    open = false;
    await bringFiles([file]);
  }
  function focused(box: HTMLTextAreaElement): void {
    setTimeout(() => box.focus(), 50);
  }
</script>

<Modal bind:open title="Paste questions" size="md">
  <form onsubmit={take} class="grid gap-3">
    <label class="text-quiet grid gap-1 text-[13px]"
      >Questions with their choices and keys, as they stand in a document, a mail or on a page
      <textarea
        use:focused
        bind:value={text}
        onpaste={paste}
        rows="12"
        dir="auto"
        class="border-hair bg-surface text-ink rounded border px-2.5 py-2 font-serif text-[15px]"
        placeholder={EXAMPLE}></textarea></label
    >
    <div class="flex items-center gap-3">
      <Button type="submit" color="primary" disabled={text.trim() === ''}>Read them</Button>
      <span class="text-quiet text-[13px]" role="status"
        >{asPasted ? 'Bold, colours and lists come along.' : ''}</span
      >
    </div>
  </form>
</Modal>
