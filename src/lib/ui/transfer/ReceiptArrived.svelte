<script lang="ts">
  import type { DifferenceInWords } from '@alforja/core';
  import type { Receipt, ReceiptRubric } from '$lib/shared/receipt';
  import { count, plural } from '../format';
  import { exampleAnswer, FACET_NAMES, showsScore } from '../seam/rows';
  import MoreListed from './MoreListed.svelte';

  /** What arrived otherwise, item by item and container by container. */
  let { receipt }: { receipt: Receipt } = $props();
  const lists = $derived([
    { title: 'Missing', list: receipt.missing, more: receipt.more?.missing },
    { title: 'Extra', list: receipt.extra, more: receipt.more?.extra },
  ]);
  function grades(r: ReceiptRubric): string {
    if (r.grades.length > 0) return `grades ${r.grades.join(', ')}`;
    return r.state === 'missing' ? 'not there' : 'not attached';
  }
  const answer = ({ example }: DifferenceInWords): string =>
    (example && exampleAnswer(example)) || 'none given';
</script>

{#if receipt.rubrics.length > 0}
  <h3 class="mt-3 text-[14px]">Rubrics</h3>
  <ul class="mb-3">
    {#each receipt.rubrics as r, at (at)}<li class="border-hair border-b py-1 text-[13px]">
        <b class="font-serif text-[14.5px]" dir="auto">{r.name}</b>: {r.state}, {plural(
          r.criteria,
          'criterion',
          'criteria',
        )}, {r.points === null ? 'not scored' : `${count(r.points)} points`}; {grades(r)}
      </li>{/each}
  </ul>
{/if}
{#if receipt.altered.length > 0}
  <h3 class="mt-3 text-[14px]">Altered</h3>
  <ul>
    {#each receipt.altered as pair, n (n)}
      <li class="border-hair border-b py-1.5">
        <span class="font-serif text-[15px]" dir="auto">{pair.name}</span>
        {#each pair.differences as d, k (k)}<div class="text-[13px]">
            {FACET_NAMES[d.facet]}: <q>{d.from || 'nothing'}</q> before, <q>{d.to || 'nothing'}</q>
            now{#if d.example}; answer {answer(d)}{#if showsScore(d)}: {count(d.example.from)} before, {count(
                  d.example.to,
                )} now{/if}{/if}
          </div>{/each}
      </li>{/each}
  </ul>
  <MoreListed more={receipt.more?.altered} />
{/if}
{#each lists as part (part.title)}
  {#if part.list.length > 0}<h3 class="mt-3 text-[14px]">{part.title}</h3>
    <ul>
      {#each part.list as entry, n (n)}<li
          class="border-hair border-b py-1 font-serif text-[15px]"
          dir="auto"
        >
          {entry.title}
        </li>{/each}
    </ul>
    <MoreListed more={part.more} />{/if}
{/each}
{#if receipt.containers.length > 0}
  <h3 class="mt-3 text-[14px]">Quizzes and banks</h3>
  <ul>
    {#each receipt.containers as c, n (n)}<li class="border-hair border-b py-1 text-[13px]">
        {c.kind} <span dir="auto">{c.name}</span>: {c.state}{#each c.differences as d, k (k)}<div
            class="text-quiet"
          >
            {FACET_NAMES[d.facet]}: {d.from} → {d.to}
          </div>{/each}
      </li>{/each}
  </ul>
  <MoreListed more={receipt.more?.containers} />
{/if}
{#if receipt.missingFiles.length > 0}<h3 class="mt-3 text-[14px]">Files missing</h3>
  <p class="text-[13px]">{receipt.missingFiles.join(', ')}</p>
  <MoreListed more={receipt.more?.missingFiles} />{/if}
{#if receipt.alteredFiles.length > 0}<h3 class="mt-3 text-[14px]">Files with other content</h3>
  <p class="text-[13px]">{receipt.alteredFiles.join(', ')}</p>
  <MoreListed more={receipt.more?.alteredFiles} />{/if}
