<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import Modal from 'flowbite-svelte/Modal.svelte';
  import temml from 'temml';
  import type { Command } from 'prosemirror-state';
  import { LONGEST_FORMULA } from '@alforja/core';
  import { putFormula } from './editing';
  import type { Typed } from './formulas';

  /** A formula typed as TeX, shown as it will look; one that is there already, as it was typed. */
  interface Props {
    put: (command: Command) => void;
    /** None for a new one, and for one that was not typed as TeX. */
    was: Typed | null;
    close: () => void;
  }
  let { put, was, close }: Props = $props();
  // svelte-ignore state_referenced_locally
  let tex = $state(was?.tex ?? '');
  // svelte-ignore state_referenced_locally
  let display = $state(was?.display ?? false);
  let open = $state(true);
  const made = $derived.by((): { markup: string; trouble: string } => {
    if (tex.trim() === '') return { markup: '', trouble: '' };
    try {
      const markup = temml.renderToString(tex, {
        displayMode: display,
        throwOnError: true,
        trust: false,
        xml: true,
        // Kept beside the formula, to be opened again.
        annotate: true,
        maxExpand: 200,
        maxSize: [20, 200],
      });
      return { markup, trouble: '' };
    } catch (error) {
      return { markup: '', trouble: (error as Error).message.split('\n')[0] ?? '' };
    }
  });
  $effect(() => {
    if (!open) close();
  });
  function take(event: SubmitEvent): void {
    event.preventDefault();
    if (made.markup === '') return;
    const { markup } = made;
    open = false;
    put(putFormula(markup));
  }
  function focused(box: HTMLTextAreaElement): void {
    setTimeout(() => box.focus(), 50);
  }
</script>

<Modal bind:open title="Formula" size="sm">
  <form onsubmit={take}>
    <label class="text-quiet text-[12.5px]"
      >As TeX<textarea
        use:focused
        bind:value={tex}
        rows="3"
        maxlength={LONGEST_FORMULA}
        spellcheck="false"
        placeholder="\frac{'{D}{T}'}"
        class="border-hair bg-surface text-ink block w-full rounded border px-2 py-1.5 font-mono text-[14px]"
      ></textarea></label
    >
    <label class="mt-2 flex items-center gap-1.5 text-[13px]"
      ><input type="checkbox" bind:checked={display} class="border-quiet text-agave size-[15px] rounded-sm" /> On
      a line of its own</label
    >
    <div
      class="border-hair item-text mt-3 min-h-14 border px-3 py-2"
      aria-live="polite"
      data-testid="formula-preview"
    >
      {#if made.trouble}<span class="text-brick font-sans text-[13px]">{made.trouble}</span>
      {:else}
        <!-- Temml makes MathML and nothing else: nothing in the formula is trusted, and all text is escaped. -->
        <!-- eslint-disable-next-line svelte/no-at-html-tags -->
        <span class="formula" class:display>{@html made.markup}</span>
      {/if}
    </div>
    <div class="mt-3 flex gap-3">
      <Button type="submit" color="primary" disabled={made.markup === ''}>Put it in</Button>
      <Button color="alternative" onclick={() => (open = false)}>Cancel</Button>
    </div>
  </form>
</Modal>
