<script lang="ts">
  import type { EditOf } from '@alforja/core';
  import type { RoomQuiz } from '$lib/shared/room';
  import { typedNumber } from '../format';
  import type { Changes } from './changes.svelte';
  import { isoOf, localOf } from './moments';
  import PanelHead from './PanelHead.svelte';
  import type { Room } from './room.svelte';
  import SectionRows from './SectionRows.svelte';

  /** A quiz changed as a whole: its name, instructions, settings, sections and draws. */
  let { quiz, room, changes, close }: { quiz: RoomQuiz; room: Room; changes: Changes; close: () => void } =
    $props();
  const s = $derived(quiz.settings);
  const node = $derived(quiz.id);
  let trouble = $state('');
  function set(to: EditOf<'settings'>['to']): void {
    trouble = '';
    void changes.make('hand', [{ op: 'settings', node, to }]);
  }
  /** A number, or null where nothing is typed; what is no number says so. */
  function number(text: string, use: (n: number | null) => void): void {
    const n = typedNumber(text);
    if (text.trim() === '') use(null);
    else if (n !== null && n > 0) use(n);
    else trouble = `“${text}” is no number above 0.`;
  }
  function attempts(text: string): void {
    if (text.trim().toLowerCase() === 'unlimited') set({ attempts: 'unlimited' });
    else number(text, (n) => set({ attempts: n === null ? null : Math.round(n) }));
  }
  const field = 'border-hair bg-surface text-ink block h-8 rounded border px-2 text-[14px]';
</script>

<section class="px-8 py-5" aria-label="Change the quiz" data-testid="quiz-panel">
  <PanelHead kind="quiz" {node} {changes} {close} />
  {#if trouble || changes.trouble}<p class="text-brick mb-2" role="alert">
      {trouble || changes.trouble}
    </p>{/if}
  <label class="text-quiet block text-[12.5px]"
    >Name<input
      class="{field} w-full font-serif text-[16px]"
      dir="auto"
      value={quiz.title}
      onchange={(e) => changes.make('hand', [{ op: 'title', node, kind: 'quiz', to: e.currentTarget.value }])}
    /></label
  >
  <label class="text-quiet mt-3 block text-[12.5px]"
    >Instructions<textarea
      rows="2"
      class="border-hair bg-surface text-ink block w-full rounded border px-2 py-1.5 font-serif text-[15px]"
      dir="auto"
      value={s.instructions ?? ''}
      onchange={(e) => set({ instructions: e.currentTarget.value.trim() || null })}></textarea></label
  >
  <div class="mt-3 flex flex-wrap items-end gap-x-5 gap-y-2">
    <label class="text-quiet text-[12.5px]"
      >Attempts<input
        class="{field} w-24"
        value={s.attempts ?? ''}
        placeholder="not set"
        onchange={(e) => attempts(e.currentTarget.value)}
      /></label
    >
    <label class="text-quiet text-[12.5px]"
      >Minutes<input
        class="{field} num w-24"
        inputmode="decimal"
        value={s.timeLimitMinutes ?? ''}
        placeholder="no limit"
        onchange={(e) => number(e.currentTarget.value, (n) => set({ timeLimitMinutes: n }))}
      /></label
    >
    <label class="text-quiet text-[12.5px]"
      >Pass mark<input
        class="{field} num w-24"
        inputmode="decimal"
        value={s.passMark ?? ''}
        placeholder="none"
        onchange={(e) => number(e.currentTarget.value, (n) => set({ passMark: n }))}
      /></label
    >
    <label class="text-quiet text-[12.5px]"
      >Opens<input
        type="datetime-local"
        class={field}
        value={localOf(s.opens)}
        onchange={(e) => set({ opens: isoOf(e.currentTarget.value) })}
      /></label
    >
    <label class="text-quiet text-[12.5px]"
      >Closes<input
        type="datetime-local"
        class={field}
        value={localOf(s.closes)}
        onchange={(e) => set({ closes: isoOf(e.currentTarget.value) })}
      /></label
    >
    <label class="flex items-center gap-1.5 pb-1.5 text-[13px]"
      ><input
        type="checkbox"
        checked={s.shuffleItems ?? false}
        onchange={(e) => set({ shuffleItems: e.currentTarget.checked })}
        class="border-quiet text-agave size-[15px] rounded-sm"
      /> Questions in random order</label
    >
    <label class="flex items-center gap-1.5 pb-1.5 text-[13px]"
      ><input
        type="checkbox"
        checked={s.shuffleChoices ?? false}
        onchange={(e) => set({ shuffleChoices: e.currentTarget.checked })}
        class="border-quiet text-agave size-[15px] rounded-sm"
      /> Choices in random order</label
    >
  </div>
  <SectionRows {quiz} {room} {changes} />
</section>
