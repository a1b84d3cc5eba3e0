<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { Receipt } from '$lib/shared/types';
  import { bytes, count, plural, readable } from '../format';
  import CoursePart from './CourseReceipt.svelte';
  import { FACET_NAMES } from '../seam/rows';

  let { receipt, base, json }: { receipt: Receipt | null; base: string; json: string } = $props();
  const verdicts = {
    intact: 'Intact: all of it arrived, and nothing differs.',
    altered: 'Altered: all of it arrived, some of it differs.',
    incomplete: 'Incomplete: not all of it arrived.',
  } as const;
  const stamp = (iso: string | null): string => (iso ? `${iso.slice(0, 10)} ${iso.slice(11, 16)} UTC` : '');
</script>

{#if !receipt}
  <p class="text-quiet">
    There is nothing to put on a receipt yet. <a class="act" href="{base}/send">Write the package</a>, or
    <a class="act" href="{base}/arrival">drop what came back</a>.
  </p>
{:else}
  <div class="no-print flex gap-3">
    <Button size="sm" color="primary" onclick={() => window.print()}>Print</Button>
    <Button size="sm" color="alternative" href="{base}/receipt.html" download="receipt.html">As a page</Button
    >
    <Button size="sm" color="alternative" href="{base}/receipt.csv" download="receipt.csv">CSV</Button>
    <Button size="sm" color="alternative" href={json} download="receipt.json">JSON</Button>
  </div>
  <article
    data-testid="receipt"
    class="sheet border-hair bg-surface max-w-[820px] border px-10 py-8 print:border-0 print:p-0"
    aria-label="Receipt"
  >
    <header class="border-saddle mb-4 flex items-baseline border-b-2 pb-2">
      <h2 class="font-serif text-[24px]">Receipt</h2>
      <span class="text-quiet ml-auto">Alforja · {receipt.transfer.id}</span>
    </header>
    <h3 class="font-serif text-[18px]">{receipt.transfer.title}</h3>
    <p class="mb-4">
      {receipt.verdict ? verdicts[receipt.verdict] : 'Sent; the arrival has not been checked yet.'}
    </p>
    {#if receipt.counts}
      <p class="num mb-4 text-[16px]">
        <b>{count(receipt.counts.intact)}</b> intact, <b>{count(receipt.counts.altered)}</b> altered,
        <b>{count(receipt.counts.missing)}</b>
        missing, <b>{count(receipt.counts.extra)}</b> extra
      </p>
    {/if}
    {#if receipt.course}<CoursePart course={receipt.course} />{/if}
    <table class="mb-5 w-full text-left text-[13px]">
      <thead
        ><tr class="border-hair border-b"
          ><th class="py-1 pr-3">File</th><th class="pr-3">Name</th><th class="pr-3 text-right">Size</th><th
            >When</th
          ></tr
        ></thead
      >
      <tbody>
        {#each [{ what: 'Source', file: receipt.source, at: receipt.source.brought }, { what: 'Sent', file: receipt.sent?.name ? receipt.sent : null, at: receipt.sent?.at ?? null }, ...(receipt.sent?.more ?? []).map( (file, n) => ({ what: receipt.sent?.name ? `Sent, ${n + 2}` : 'Sent', file, at: receipt.sent?.at ?? null }) ), { what: 'Arrived', file: receipt.arrived, at: receipt.arrived?.compared ?? null }] as line (line.what)}
          {#if line.file}
            <tr
              ><th scope="row" class="pt-1.5 pr-3 font-semibold">{line.what}</th><td class="pr-3 break-all"
                >{line.file.name}</td
              ><td class="num pr-3 text-right whitespace-nowrap">{bytes(line.file.bytes)}</td><td
                class="whitespace-nowrap">{stamp(line.at)}</td
              ></tr
            >
            <tr class="border-hair border-b"
              ><td></td><td colspan="3" class="text-quiet pb-1.5 font-mono text-[11.5px] break-all"
                >SHA-256 {line.file.sha256}</td
              ></tr
            >
          {/if}
        {/each}
      </tbody>
    </table>
    {#if receipt.totals}
      <table class="mb-5 w-full max-w-[460px] text-left text-[13px]">
        <thead
          ><tr class="border-hair border-b"
            ><th class="py-1">Totals</th><th class="text-right">Planned</th><th class="text-right">Arrived</th
            ></tr
          ></thead
        >
        <tbody
          >{#each ['items', 'points', 'quizzes', 'banks', 'draws', 'files', 'rubrics'] as const as key (key)}
            {@const [left, right] = [receipt.totals.left[key] ?? 0, receipt.totals.right[key] ?? 0]}<tr
              class="border-hair border-b"
              ><th scope="row" class="py-1 font-normal">{key}</th><td class="num text-right">{count(left)}</td
              ><td class="num text-right {left !== right ? 'font-semibold' : ''}">{count(right)}</td></tr
            >{/each}</tbody
        >
      </table>
    {/if}
    {#if receipt.rubrics.length > 0}
      <h3 class="mt-3 text-[14px]">Rubrics</h3>
      <ul class="mb-3">
        {#each receipt.rubrics as r, at (at)}<li class="border-hair border-b py-1 text-[13px]">
            <b class="font-serif text-[14.5px]" dir="auto">{r.name}</b>: {r.state}, {plural(
              r.criteria,
              'criterion',
              'criteria',
            )}, {r.points === null ? 'not scored' : `${count(r.points)} points`}; {r.grades.length > 0
              ? `grades ${r.grades.join(', ')}`
              : r.state === 'missing'
                ? 'not there'
                : 'attached to nothing'}
          </li>{/each}
      </ul>
    {/if}
    {#if receipt.sheet.length > 0}
      <h3 class="mt-3 text-[14px]">Settings that travel in no package</h3>
      <ul class="mb-3">
        {#each receipt.sheet as line, n (n)}
          <li class="border-hair flex items-baseline gap-2 border-b py-1 text-[13px]">
            <span aria-hidden="true">{line.found ? '☑' : '☐'}</span>
            <span
              ><b class="font-serif text-[14.5px]" dir="auto">{line.quiz}</b>: {line.setting}
              {readable(line.value)}</span
            >
            <span class="text-quiet ml-auto"
              >{line.found === null
                ? 'to be set by hand'
                : line.found
                  ? 'found set'
                  : 'not as it should be'}</span
            >
          </li>
        {/each}
      </ul>
    {/if}
    {#if receipt.altered.length > 0}
      <h3 class="mt-3 text-[14px]">Altered</h3>
      <ul>
        {#each receipt.altered as pair, n (n)}
          <li class="border-hair border-b py-1.5">
            <span class="font-serif text-[15px]" dir="auto">{pair.name}</span>
            {#each pair.differences as d, n (n)}<div class="text-[13px]">
                {FACET_NAMES[d.facet]}: <q>{d.from}</q> before, <q>{d.to}</q> now{#if d.example}; answer {Object.values(
                    d.example.response,
                  )
                    .flat()
                    .join(', ') || 'none'}: {count(d.example.from)} before, {count(d.example.to)} now{/if}
              </div>{/each}
          </li>{/each}
      </ul>
    {/if}
    {#each [{ title: 'Missing', list: receipt.missing }, { title: 'Extra', list: receipt.extra }] as part (part.title)}
      {#if part.list.length > 0}<h3 class="mt-3 text-[14px]">{part.title}</h3>
        <ul>
          {#each part.list as entry, n (n)}<li
              class="border-hair border-b py-1 font-serif text-[15px]"
              dir="auto"
            >
              {entry.title}
            </li>{/each}
        </ul>{/if}
    {/each}
    {#if receipt.containers.length > 0}
      <h3 class="mt-3 text-[14px]">Quizzes and banks</h3>
      <ul>
        {#each receipt.containers as c, n (n)}<li class="border-hair border-b py-1 text-[13px]">
            {c.kind}
            {c.source ?? c.arrived}: {c.state}{#each c.differences as d, n (n)}<div class="text-quiet">
                {FACET_NAMES[d.facet]}: {d.from} → {d.to}
              </div>{/each}
          </li>{/each}
      </ul>
    {/if}
    {#if receipt.missingFiles.length > 0}<h3 class="mt-3 text-[14px]">Files missing</h3>
      <p class="text-[13px]">{receipt.missingFiles.join(', ')}</p>{/if}
    {#if receipt.sent && receipt.sent.losses.length > 0}
      <h3 class="mt-3 text-[14px]">Named before sending</h3>
      <ul>
        {#each receipt.sent.losses.slice(0, 40) as found, at (at)}<li class="text-[13px]">
            {found.message}
          </li>{/each}
      </ul>
      {#if receipt.sent.losses.length > 40}<p class="text-quiet text-[13px]">
          and {plural(receipt.sent.losses.length - 40, 'more', 'more')} in the JSON
        </p>{/if}
    {/if}
  </article>
{/if}
