<script lang="ts">
  import type { QuizDraft } from '@alforja/core';
  import type { Maker } from './maker.svelte';

  /** What the quiz is as a whole: instructions, time, attempts, pass mark. */
  let { maker }: { maker: Maker } = $props();
  const settings = $derived(maker.draft.settings);
  const set = (to: Partial<QuizDraft['settings']>): void => maker.do({ do: 'settings', to });
  const positive = (text: string): number | null => {
    const n = Number(text);
    return text.trim() === '' || !Number.isFinite(n) || n <= 0 ? null : n;
  };
  const field = 'border-hair bg-surface text-ink h-8 rounded border py-0 pl-2 text-[14px]';
  const ATTEMPTS = [1, 2, 3, 5, 10];
</script>

<div class="border-hair mb-5 grid gap-3 border-b pb-4 sm:grid-cols-3">
  <label class="text-quiet text-[12.5px]"
    >Minutes<input
      type="number"
      min="1"
      placeholder="no limit"
      value={settings.timeLimitMinutes ?? ''}
      onchange={(e) => set({ timeLimitMinutes: positive(e.currentTarget.value) })}
      class="num {field} placeholder:text-quiet block w-full"
    /></label
  >
  <label class="text-quiet text-[12.5px]"
    >Attempts<select
      class="{field} block w-full"
      value={String(settings.attempts ?? '')}
      onchange={(e) => {
        const to = e.currentTarget.value;
        set({ attempts: to === '' ? null : to === 'unlimited' ? 'unlimited' : Number(to) });
      }}
    >
      {#each ATTEMPTS as n (n)}<option value={String(n)}>{n}</option>{/each}
      <option value="unlimited">as often as one likes</option>
      <option value="">not said</option>
    </select></label
  >
  <label class="text-quiet text-[12.5px]"
    >Pass mark, in points<input
      type="number"
      min="0"
      step="any"
      placeholder="none"
      value={settings.passMark ?? ''}
      onchange={(e) => set({ passMark: positive(e.currentTarget.value) })}
      class="num {field} placeholder:text-quiet block w-full"
    /></label
  >
  <label class="text-quiet text-[12.5px] sm:col-span-3"
    >Instructions<textarea
      rows="2"
      dir="auto"
      maxlength="20000"
      value={settings.instructions}
      onchange={(e) => set({ instructions: e.currentTarget.value })}
      class="border-hair bg-surface text-ink block w-full rounded border px-2 py-1 font-serif text-[15px]"
    ></textarea></label
  >
</div>
