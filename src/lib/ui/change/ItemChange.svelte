<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { Command } from 'prosemirror-state';
  import { interactionsOf, type Edit } from '@alforja/core';
  import type { WholeItem } from '$lib/shared/edits';
  import ScoreTable from '../content/ScoreTable.svelte';
  import type { Changes } from '../room/changes.svelte';
  import AsItCame from './AsItCame.svelte';
  import ChoiceRows from './ChoiceRows.svelte';
  import { ItemDraft, slotNames } from './draft.svelte';
  import FeedbackFields from './FeedbackFields.svelte';
  import FormulaDialog from './FormulaDialog.svelte';
  import type { Typed } from './formulas';
  import MatchRows from './MatchRows.svelte';
  import PictureDialog from './PictureDialog.svelte';
  import { pictureEdit, type PictureIn } from './pictures';
  import ScoreFields from './ScoreFields.svelte';
  import TextEditor from './TextEditor.svelte';
  import type { TextHelp } from './tools';

  /** An item changed where it stands; the scoring in words and the table of answers follow at every key. */
  interface Props {
    whole: WholeItem;
    changes: Changes;
    files: string;
    close: () => void;
  }
  let { whole, changes, files, close }: Props = $props();
  // svelte-ignore state_referenced_locally
  const draft = new ItemDraft(whole, changes);
  $effect(() => draft.renew(whole));
  $effect(() => () => void draft.flush());
  const now = $derived(draft.item);
  const view = $derived(draft.view);
  const node = $derived(now.id);
  const body = $derived(slotNames(now.body));
  const asked = $derived(interactionsOf(now));
  const language = $derived(now.language ?? undefined);
  let formula = $state.raw<{ put: (command: Command) => void; was: Typed | null } | null>(null);
  let picture = $state.raw<{ made: PictureIn; put: (command: Command) => void } | null>(null);
  let trouble = $state('');
  const around = (names: readonly string[]) => ({ files, fresh: draft.fresh, slots: names });
  const onformula: TextHelp['onformula'] = (put, was) => void (formula = { put, was });
  async function onpicture(file: File, put: (command: Command) => void): Promise<void> {
    trouble = '';
    try {
      picture = { made: await pictureEdit(file, node), put };
    } catch (error) {
      trouble = (error as Error).message;
    }
  }
  function putPicture(alt: string): void {
    const { made, put } = picture!;
    draft.fresh.set(made.path, made.shown);
    if (draft.put(made.edit)) put(made.command(alt));
  }
  const tools = { onformula, onpicture };
  const edit = (e: Edit): boolean => draft.put(e);
  async function done(): Promise<void> {
    await draft.flush();
    close();
  }
</script>

<section aria-label="Change the item" data-testid="change">
  <div class="mb-2 flex flex-wrap items-center gap-3">
    <Button color="primary" size="xs" onclick={done}>Done</Button>
    {#if draft.changed.size > 0}<button type="button" class="act text-[13px]" onclick={() => draft.asItCame()}
        >All of it as it came</button
      >{/if}
    <span class="text-quiet ml-auto text-[12.5px]" role="status"
      >{draft.waiting || changes.busy ? 'Keeping…' : 'Kept'}</span
    >
  </div>
  {#if trouble}<p class="text-brick mb-2" role="alert">{trouble}</p>{/if}
  {#each draft.refusals as [place, why] (place)}<p class="text-brick mb-1 text-[13px]" role="alert">
      Not done: {why}
    </p>{/each}
  <div class="mb-3 grid grid-cols-[minmax(0,1fr)_minmax(0,220px)] gap-3">
    <div>
      <label class="text-quiet text-[12.5px]"
        >Title<input
          class="field w-full font-serif text-[15px]"
          dir="auto"
          value={now.title}
          oninput={(e) => edit({ op: 'title', node, kind: 'item', to: e.currentTarget.value })}
        /></label
      >
      <AsItCame {draft} part="title" says="Title" />
    </div>
    <div>
      <label class="text-quiet text-[12.5px]"
        >Category<input
          class="field w-full text-[14px]"
          dir="auto"
          value={now.category ?? ''}
          oninput={(e) => edit({ op: 'category', node, to: e.currentTarget.value || null })}
        /></label
      >
      <AsItCame {draft} part="category" says="Category" />
    </div>
  </div>
  <div class="text-quiet mb-0.5 text-[12.5px]">Question</div>
  <TextEditor
    html={body.html}
    kinds={body.kinds}
    around={around(body.names)}
    label="Question"
    {language}
    {...tools}
    came={draft.came('body')}
    onchange={(to) => edit({ op: 'content', node, at: 'body', to })}
  />
  {#each asked as interaction, n (n)}
    {#if 'choices' in interaction}<ChoiceRows
        {draft}
        {interaction}
        keyed={view.keyed}
        {around}
        {language}
        {...tools}
      />
    {:else if interaction.kind === 'match'}<MatchRows
        {draft}
        {interaction}
        {around}
        {language}
        {...tools}
      />{/if}
  {/each}
  <ScoreFields {draft} />
  <FeedbackFields {draft} {around} {language} {...tools} />
  <div class="border-hair mt-4 border-t pt-3" aria-live="polite" data-testid="scoring-now">
    <h3 class="text-[13.5px]">How it scores now</h3>
    <p class="mb-1">{view.rule}</p>
    <ScoreTable lines={view.table} />
  </div>
</section>
{#if formula}<FormulaDialog {...formula} close={() => (formula = null)} />{/if}
{#if picture}<PictureDialog picture={picture.made} take={putPicture} close={() => (picture = null)} />{/if}

<style>
  .field {
    display: block;
    height: 32px;
    border: 1px solid var(--hair);
    border-radius: 4px;
    background: var(--surface);
    color: var(--ink);
    padding: 0 8px;
  }
</style>
