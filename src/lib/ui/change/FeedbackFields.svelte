<script lang="ts">
  import { choicesOf, feedbackRoles, optionText, type ContentNode, type FeedbackRole } from '@alforja/core';
  import { slotNames, type ItemDraft } from './draft.svelte';
  import TextEditor from './TextEditor.svelte';
  import type { TextHelp } from './tools';

  /** What students are told, by whom it is for; a further text for those who are told nothing yet. */
  interface Props extends TextHelp {
    draft: ItemDraft;
  }
  let { draft, around, language, onformula, onpicture }: Props = $props();
  const item = $derived(draft.item);
  const node = $derived(item.id);
  const on = (role: FeedbackRole): string => (role.on === 'choice' ? role.choice : role.on);
  const told = $derived(
    feedbackRoles(item).flatMap((f): { on: string; content: readonly ContentNode[] }[] =>
      f.role === null ? [] : [{ on: on(f.role), content: f.content }],
    ),
  );
  const WORDS: Readonly<Record<string, string>> = {
    general: 'Everybody',
    right: 'Who is right',
    wrong: 'Who is wrong',
  };
  const choices = $derived(choicesOf(item).map((c) => ({ id: c.id, says: optionText(c) })));
  const says = (of: string): string =>
    WORDS[of] ?? `Who chose “${choices.find((c) => c.id === of)?.says ?? of}”`;
  const free = $derived(
    [...Object.keys(WORDS), ...choices.map((c) => c.id)].filter((of) => !told.some((t) => t.on === of)),
  );
</script>

<div class="mt-4" role="group" aria-label="Feedback">
  <div class="text-quiet text-[12.5px]">Feedback</div>
  {#each told as t (t.on)}
    {@const text = slotNames(t.content)}
    <div class="flex items-start gap-2 py-1">
      <span class="text-quiet w-[110px] shrink-0 truncate pt-1.5 text-[12.5px]" dir="auto" title={says(t.on)}
        >{says(t.on)}</span
      >
      <TextEditor
        html={text.html}
        kinds={text.kinds}
        around={around(text.names)}
        label="Feedback: {says(t.on)}"
        {language}
        {onformula}
        {onpicture}
        came={draft.came(`feedback ${t.on}`)}
        onchange={(to) => draft.put({ op: 'content', node, at: 'feedback', on: t.on, to })}
      />
      <button
        type="button"
        class="act shrink-0 pt-1.5 text-[13px]"
        onclick={() => draft.put({ op: 'feedback', node, on: t.on, to: null })}>Take out</button
      >
    </div>
  {/each}
  {#if free.length > 0}
    <label class="text-quiet text-[12.5px]"
      >Add for <select
        class="border-hair bg-surface text-ink h-7 max-w-[260px] truncate rounded border py-0 pl-2 text-[13px]"
        value=""
        onchange={(e) => {
          const of = e.currentTarget.value;
          e.currentTarget.value = '';
          if (of !== '') draft.put({ op: 'feedback', node, on: of, to: 'New feedback' });
        }}
        ><option value="">…</option>{#each free as of (of)}<option value={of}>{says(of)}</option
          >{/each}</select
      ></label
    >
  {/if}
</div>
