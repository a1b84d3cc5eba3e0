<script lang="ts">
  import { plural } from '../format';
  import type { Maker } from './maker.svelte';

  /** What is wrong with the quiz as it stands, each with what puts it right. */
  let { maker }: { maker: Maker } = $props();
  const hazards = $derived(maker.view.hazards);
  const MARK = { error: 'text-brick', warning: 'text-ochre', note: 'text-quiet' } as const;
  const NAME = { error: 'wrong', warning: 'check', note: 'note' } as const;
  const section = (id: string | null): string => {
    const at = maker.draft.sections.findIndex((s) => s.id === id);
    return at < 0 ? '' : maker.draft.sections[at]!.title || `Section ${at + 1}`;
  };
  function mend(n: number): void {
    const { changes, says } = hazards[n]!;
    if (!changes) return;
    maker.do(...changes);
    maker.said = `Done: ${says}.`;
  }
  const take = (): Promise<void> =>
    maker.takeNewer().catch((problem: Error) => void (maker.trouble = problem.message));
  const some = $derived(hazards.filter((h) => h.changes !== null && h.spoken.severity !== 'note'));
  const mendAll = (): void => {
    maker.do(...some.flatMap((h) => h.changes ?? []));
    maker.said = `${some.length} put right.`;
  };
</script>

<section aria-labelledby="hazards">
  <div class="flex items-baseline gap-2">
    <h2 id="hazards" class="text-[14px] font-semibold">To check</h2>
    {#if some.length > 1}<button type="button" class="act ml-auto text-[13px]" onclick={mendAll}
        >Put all {some.length} right</button
      >{/if}
  </div>
  {#if maker.view.newer.length > 0}<p class="border-ochre mt-1 border-l-2 pl-2 text-[13.5px]">
      {plural(maker.view.newer.length, 'question')} changed where {maker.view.newer.length === 1
        ? 'it comes'
        : 'they come'} from.
      <button type="button" class="act" onclick={take}
        >Take {maker.view.newer.length === 1 ? 'it' : 'them'} as now</button
      >
    </p>{/if}
  {#if hazards.length === 0}<p class="text-quiet mt-1 text-[13.5px]">
      {maker.view.items === 0 ? 'It has no questions yet.' : 'Nothing is wrong with it that we know of.'}
    </p>{/if}
  <ul class="mt-1">
    {#each hazards as h, n (n)}<li class="border-hair border-b py-2 text-[13.5px]">
        <p class="text-[12px] {MARK[h.spoken.severity]}">
          <span class="font-semibold">{NAME[h.spoken.severity]}</span>{section(h.section)
            ? ` · ${section(h.section)}`
            : ''}
        </p>
        {#if h.about && !h.spoken.message.includes(h.about)}<p class="line-clamp-2 font-serif" dir="auto">
            {h.about}
          </p>{/if}
        <p dir="auto">{h.spoken.message}</p>
        {#if h.changes}<button type="button" class="act" onclick={() => mend(n)}
            >{h.says}<span class="sr-only">: {h.spoken.message}</span></button
          >{:else}<p class="text-quiet">{h.spoken.hint}</p>{/if}
      </li>{/each}
  </ul>
</section>
