<script lang="ts">
  import { EditorView } from 'prosemirror-view';
  import type { Command } from 'prosemirror-state';
  import { stateAt, stateOf, TOOLS } from './editing';
  import { typedFormula, type Typed } from './formulas';
  import { cleanPasted } from './pasted';
  import { readText, writeText } from './text';
  import { nodeViews, type Around } from './views';

  interface Props {
    /** As core has it: HTML of the allow-list, with slots. */
    html: string;
    kinds: readonly string[];
    around: Around;
    label: string;
    language: string | undefined;
    onchange: (html: string) => void;
    /** Asked for a formula (the selected one, or a new one) or a picture; the command that comes back puts it in. */
    onformula: (put: (command: Command) => void, was: Typed | null) => void;
    onpicture: (file: File, put: (command: Command) => void) => void;
    /** Takes the text back to as it came; none where it is. */
    came?: (() => void) | undefined;
  }
  let { html, kinds, around, label, language, onchange, onformula, onpicture, came }: Props = $props();
  let view: EditorView | null = null;
  let last = '';
  let inside = $state(false);
  /** Whether what was typed would have taken out what is answered, and was not taken. */
  let kept = $state(false);

  function run(command: Command): void {
    if (!view) return;
    command(view.state, (tr) => view!.dispatch(tr));
    view.focus();
  }
  function formula(): void {
    if (view) onformula(run, typedFormula(view.state));
  }
  const picture = (files: FileList | undefined): File | undefined =>
    [...(files ?? [])].find((f) => f.type.startsWith('image/'));
  function taken(event: Event, files: FileList | undefined): boolean {
    const file = picture(files);
    if (!file) return false;
    event.preventDefault();
    onpicture(file, run);
    return true;
  }

  function open(place: HTMLElement): { destroy: () => void } {
    last = html;
    view = new EditorView(place, {
      state: stateOf(readText(html, kinds)),
      nodeViews: nodeViews(around, formula),
      attributes: {
        'aria-label': label,
        role: 'textbox',
        'aria-multiline': 'true',
        class: 'item-text',
        dir: 'auto',
      },
      transformPastedHTML: cleanPasted,
      handlePaste: (_, event) => taken(event, event.clipboardData?.files),
      handleDrop: (_, event) => taken(event, event.dataTransfer?.files),
      dispatchTransaction(tr) {
        const { state: next, transactions } = view!.state.applyTransaction(tr);
        kept = transactions.length === 0;
        view!.updateState(next);
        if (!tr.docChanged || kept) return;
        onchange(writeText(view!.state.doc));
        // As core has it now: the same text, though it may be written otherwise.
        last = html;
      },
    });
    return { destroy: () => view?.destroy() };
  }
  $effect(() => {
    // What was undone, or changed elsewhere, comes in; what was typed here is here already.
    if (!view || html === last) return;
    last = html;
    const doc = readText(html, kinds);
    if (!doc.eq(view.state.doc)) view.updateState(stateAt(doc, view.state.selection.head));
  });
  /** The tools stay while a dialog is asked, which takes the focus for a while. */
  function stays({ currentTarget, relatedTarget: to }: FocusEvent): boolean {
    if (!(to instanceof Element)) return true;
    return (currentTarget as Element).contains(to) || to.closest('dialog, [role="dialog"]') !== null;
  }
  function choose(event: Event & { currentTarget: HTMLInputElement }): void {
    const file = picture(event.currentTarget.files ?? undefined);
    event.currentTarget.value = '';
    if (file) onpicture(file, run);
  }
</script>

<div
  class="text-box border-hair focus-within:border-agave min-w-0 grow rounded border {came
    ? 'border-l-saddle border-l-[3px]'
    : ''}"
  title={came ? 'Changed' : undefined}
  onfocusin={() => (inside = true)}
  onfocusout={(e) => (inside = stays(e))}
>
  <div use:open lang={language} class="px-2 py-1"></div>
  <!-- Below the text, which stays where it was clicked. -->
  {#if inside}
    <div
      class="border-hair flex flex-wrap gap-1 border-t px-1 py-0.5"
      role="toolbar"
      aria-label="{label}: form"
    >
      {#each TOOLS as tool (tool.name)}<button
          type="button"
          class="tool"
          title={tool.says}
          onmousedown={(e) => e.preventDefault()}
          onclick={() => run(tool.command)}
          >{#if tool.name === 'strong'}<strong>Strong</strong>{:else if tool.name === 'em'}<em>Emphasis</em
            >{:else if tool.name === 'sub'}x<sub>2</sub><span class="sr-only">{tool.says}</span
            >{:else if tool.name === 'sup'}x<sup>2</sup><span class="sr-only">{tool.says}</span
            >{:else}{tool.says}{/if}</button
        >{/each}
      <button type="button" class="tool" onclick={formula}>Formula…</button>
      <label class="tool cursor-pointer"
        >Picture…<input type="file" accept="image/*" class="sr-only" tabindex="-1" onchange={choose} /></label
      >
      {#if came}<button type="button" class="tool ml-auto" aria-label="{label}: as it came" onclick={came}
          >As it came</button
        >{/if}
    </div>
  {/if}
  {#if kept}<p class="text-ochre px-2 pb-1 text-[12.5px]" role="alert">
      What is answered stays in the text. Put the cursor beside it first.
    </p>{/if}
</div>

<style>
  .tool {
    display: inline-flex;
    align-items: center;
    gap: 1px;
    min-height: 24px;
    padding: 0 6px;
    border-radius: 3px;
    font-size: 12.5px;
  }
  .tool:hover {
    background: var(--band);
  }
  .text-box :global(.ProseMirror) {
    outline: none;
    white-space: pre-wrap;
    word-wrap: break-word;
    min-height: 1.5em;
  }
  .text-box :global(.slot) {
    display: inline-block;
    padding: 0 8px;
    border: 1px dashed var(--saddle);
    border-radius: 3px;
    color: var(--saddle);
    font-family: var(--font-sans);
    font-size: 12.5px;
  }
  .text-box :global(div.slot) {
    display: block;
    margin: 4px 0;
  }
  .text-box :global(.ProseMirror-selectednode) {
    outline: 2px solid var(--agave);
  }
  .text-box :global(.ProseMirror-hideselection *::selection) {
    background: transparent;
  }
</style>
