<script lang="ts">
  import { shownName } from '@alforja/core';
  import { untrack, type Snippet } from 'svelte';
  import Button from 'flowbite-svelte/Button.svelte';
  import type { Feedback, Origin } from '@alforja/core';
  import type { WholeItem } from '$lib/shared/edits';
  import type { ItemView } from '$lib/shared/types';
  import { ask } from '../ask';
  import Content from '../content/Content.svelte';
  import DataFiles from '../content/DataFiles.svelte';
  import ScoreTable from '../content/ScoreTable.svelte';
  import type ItemChange from '../change/ItemChange.svelte';
  import { AnswerSheet, plainShowing, typesOf, type Showing } from '../content/answers.svelte';
  import { KIND_NAMES, plural } from '../format';
  import type { Changes } from './changes.svelte';
  import FeedbackTexts from './FeedbackTexts.svelte';

  interface Props {
    packageId: string;
    /** Where the item stands in the package. */
    seq: number;
    /** The reading it is shown by. */
    reading: string;
    number: number;
    kind: string;
    edited: boolean;
    changes: Changes;
    /** What was found on it. */
    children: Snippet;
  }
  let { packageId, seq, reading, number, kind, edited, changes, children }: Props = $props();
  let view = $state.raw<ItemView | null>(null);
  let sheet = $state(new AnswerSheet());
  let result = $state<{ score: string; maximum: string; feedback: Feedback[] } | null>(null);
  let xml = $state(false);
  let failed = $state('');
  /** The whole item while it is changed; null while it is only shown. */
  let whole = $state.raw<WholeItem | null>(null);
  let Change = $state.raw<typeof ItemChange | null>(null);
  const files = $derived(`/api/packages/${packageId}/file`);
  const base = $derived(`/api/packages/${packageId}/items/${seq}`);

  $effect(() => {
    void reading;
    const address = base;
    sheet = new AnswerSheet();
    result = null;
    failed = '';
    const stop = new AbortController();
    // What was closed meanwhile stays closed.
    if (untrack(() => whole) !== null)
      void fetchWhole(address, stop.signal).then((read) => (whole &&= read ?? whole));
    fetch(address, { signal: stop.signal })
      .then(async (r) => {
        if (!r.ok) throw new Error((await r.json()).message);
        view = await r.json();
      })
      .catch((e: Error) => {
        if (e.name !== 'AbortError') failed = e.message;
      });
    return () => stop.abort();
  });

  /** The item with its scoring, and with all that was changed of it until it came. */
  async function fetchWhole(address: string, signal?: AbortSignal): Promise<WholeItem | null> {
    for (;;) {
      const before = changes.told;
      const response = await fetch(`${address}/whole`, signal ? { signal } : {}).catch(() => null);
      if (!response?.ok) return null;
      const read = (await response.json()) as WholeItem;
      if (changes.told === before) return read;
    }
  }
  async function change(): Promise<void> {
    Change ??= (await import('../change/ItemChange.svelte')).default;
    whole = await fetchWhole(base);
  }
  const item = $derived(view?.item);
  const placed = (at: Origin): string =>
    `${shownName(at.path)}, ${at.kind === 'block' ? `${at.page === null ? '' : `page ${at.page}, `}paragraph ${at.block}` : `line ${at.line}`}`;
  const keyed = $derived(new Set(view?.keyed));
  const show = $derived<Showing>({
    files,
    sheet,
    keyed,
    printed: view?.printed ?? {},
    ...typesOf(item?.responses ?? []),
  });

  async function score(): Promise<void> {
    try {
      result = await ask(`${base}/score`, { answers: sheet.answers });
    } catch (error) {
      failed = (error as Error).message;
    }
  }
  function stopTrying(): void {
    sheet = new AnswerSheet();
    result = null;
  }
</script>

<article class="px-8 py-5" aria-label="Item {number}">
  {#if failed}<p class="text-brick">{failed}</p>{/if}
  {#if item && view}
    <div class="text-quiet mb-3 flex flex-wrap items-baseline gap-x-3 text-[13px]">
      <h2 class="font-normal">
        Item {number} · {KIND_NAMES[kind] ?? kind} · {plural(item.points, 'point')}{item.category
          ? ` · ${item.category}`
          : ''}
      </h2>
      {#if edited}<span class="text-saddle font-semibold">changed</span>{/if}
      {#if item.origin}
        <span class="ml-auto"
          >{placed(item.origin)}{item.origin.kind === 'xml'
            ? ' · '
            : ''}{#if item.origin.kind === 'xml'}<button
              type="button"
              class="act"
              aria-expanded={xml}
              onclick={() => (xml = !xml)}>XML</button
            >{/if}</span
        >
      {/if}
    </div>
    {#if whole && Change}{#key whole.item.id}<Change
          {whole}
          {changes}
          {files}
          close={() => (whole = null)}
        />{/key}{:else}
      {#if item.title}<div class="text-quiet mb-1 text-[13px]" dir="auto">{item.title}</div>{/if}
      {#if xml && item.origin?.kind === 'xml'}<pre
          class="border-hair bg-paper mb-4 max-h-[340px] overflow-auto rounded border p-3 text-[12px]"
          tabindex="-1">{item.origin.xml}</pre>{/if}
      {#key sheet}
        <div class="item-text" lang={item.language ?? undefined} dir="auto">
          {#each item.stimuli as passage, n (n)}<section
              aria-label={passage.title || 'Passage'}
              class="border-hair mb-3 border-b pb-3"
            >
              <Content nodes={passage.content} {show} />
            </section>{/each}
          <Content nodes={item.body} {show} />
        </div>
      {/key}
      <DataFiles {files} paths={item.files.filter((f) => f.present).map((f) => f.path)} />
      {#if view.keyText && view.key.length > 0 && !sheet.live}
        <p class="mt-3 flex gap-2.5">
          <span class="text-saddle w-8 text-right text-[12.5px] font-semibold">key</span><span
            class="font-serif text-[16px]"
            dir="auto"
            >{#each view.key as line, n (n)}<span class="block">{line}</span>{/each}</span
          >
        </p>
      {/if}

      <section class="border-hair mt-4 border-t pt-4" aria-labelledby="scores">
        {#if sheet.live}
          <div class="flex items-center gap-3">
            <Button color="primary" onclick={score}>Score it</Button>
            <Button color="alternative" onclick={stopTrying}>Back to the key</Button>
            <span role="status" class="num"
              >{#if result}<b>{result.score}</b> of {result.maximum} points{/if}</span
            >
          </div>
          {#if result && result.feedback.length > 0}
            <div class="border-saddle mt-3 border-l-2 pl-3">
              <div class="text-quiet text-[12.5px]">What the student is told</div>
              {#each result.feedback as f, n (n)}<div class="item-text">
                  <Content nodes={f.content} show={plainShowing(files)} />
                </div>{/each}
            </div>
          {/if}
        {:else}
          <h3 id="scores" class="text-[13.5px]">How it scores</h3>
          <p class="mb-2">
            {view.rule}{#if !view.exact}
              <span class="text-quiet">The most found by trying; there may be an answer that gives more.</span
              >{/if}
          </p>
          <ScoreTable lines={view.table} />
          <FeedbackTexts texts={item.feedback} {files} />
          {@render children()}
          {#if item.responses.length > 0}
            <div class="mt-4 flex items-center gap-3">
              <Button color="alternative" onclick={change}>Change it</Button>
              <Button color="alternative" onclick={() => (sheet.live = true)}>Try it</Button>
              <span class="text-quiet">Try it: answer as a student would, and see the score.</span>
            </div>
          {/if}
        {/if}
      </section>
    {/if}
  {/if}
</article>
