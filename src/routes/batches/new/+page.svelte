<script lang="ts">
  import Page from '$lib/ui/shell/Page.svelte';
  import { enhance } from '$app/forms';
  import { goto } from '$app/navigation';
  import type { ThingKind } from '@alforja/core';
  import Button from 'flowbite-svelte/Button.svelte';
  import { pairLines, readyPairs, type PairChange, type PairLine } from '$lib/ui/batches/pairs';
  import PairTable from '$lib/ui/batches/PairTable.svelte';
  import { plural } from '$lib/ui/format';

  const KINDS = ['quiz', 'bank', 'rubric', 'link'] as const satisfies readonly ThingKind[];
  let { data, form } = $props();
  const given = $derived(form && 'csv' in form ? (form.csv ?? null) : null);
  let byHand = $state<Record<string, PairChange>>({});
  const lines = $derived(pairLines(data.pairs, given, byHand));
  const change = (l: PairLine, to: PairChange): void => {
    byHand[l.source] = { ...byHand[l.source], ...to };
  };
  let kinds = $state<ThingKind[]>([...KINDS]);
  let onVersion = $state('replace');
  let byPosition = $state(false);
  // svelte-ignore state_referenced_locally
  let title = $state(`${data.from} to ${data.to}`);
  const ready = $derived(readyPairs(lines));
  const term = (key: 'from' | 'to', value: string): void => {
    const next = { from: data.from, to: data.to, [key]: value };
    void goto(`/batches/new?from=${encodeURIComponent(next.from)}&to=${encodeURIComponent(next.to)}`);
  };
  const send = (input: HTMLInputElement): void => input.form?.requestSubmit();
  /** A file can be chosen before the page's scripts are there. */
  function early(input: HTMLInputElement): void {
    if (input.files?.length) send(input);
  }
  const names = { quiz: 'quizzes', bank: 'banks', rubric: 'rubrics', link: 'links' } as const;
</script>

<Page title="Many courses at once" back={{ href: '/courses', name: 'Courses' }}>
  <div class="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
    {#each [{ key: 'from' as const, says: 'From' }, { key: 'to' as const, says: 'Into' }] as t (t.key)}
      <label class="flex items-center gap-2"
        >{t.says}
        <select
          value={data[t.key]}
          onchange={(e) => term(t.key, e.currentTarget.value)}
          class="border-hair bg-surface text-ink h-8 rounded border py-0"
        >
          {#each data.terms as name (name)}<option value={name}>{name || 'no term'}</option>{/each}
        </select></label
      >
    {/each}
    <form
      method="POST"
      action="?/csv"
      enctype="multipart/form-data"
      use:enhance={() =>
        async ({ update }) =>
          update({ reset: false, invalidateAll: false })}
      class="ml-auto flex items-center gap-2"
    >
      <label class="flex items-center gap-2"
        >Pairs from a CSV <input
          type="file"
          name="file"
          accept=".csv,text/csv"
          class="sr-only"
          use:early
          onchange={(e) => send(e.currentTarget)}
        /></label
      >
    </form>
  </div>
  {#if form && 'message' in form}<p class="text-brick mb-2" role="alert">{form.message}</p>{/if}
  {#each (form && 'wrong' in form ? form.wrong : null) ?? [] as said, n (n)}<p
      class="text-brick"
      role="alert"
    >
      {said}
    </p>{/each}
  {#if lines.length === 0}
    <p>
      No course of {data.from || 'that term'} holds anything. Choose another term, or look at the
      <a class="act" href="/systems">systems</a>.
    </p>
  {:else}
    <div class="grid grid-cols-[minmax(0,1fr)_300px] gap-5 max-lg:grid-cols-1">
      <PairTable {lines} destinations={data.destinations} {change} />
      <aside class="border-hair bg-surface self-start border px-4 py-3" aria-label="The plan for all">
        <h2 class="text-[15px]">The plan for all</h2>
        <fieldset class="mt-2">
          <legend class="text-quiet text-[12.5px] font-semibold">What comes</legend>
          {#each KINDS as kind (kind)}<label class="flex items-center gap-2.5 py-0.5"
              ><input
                type="checkbox"
                bind:group={kinds}
                value={kind}
                class="border-quiet text-agave size-[15px] rounded-sm dark:bg-transparent"
              />{names[kind]}</label
            >{/each}
        </fieldset>
        <label class="mt-2 grid gap-1"
          >Sections <select
            bind:value={byPosition}
            class="border-hair bg-surface text-ink h-8 rounded border py-0 text-[13.5px]"
            ><option value={false}>by name</option><option value={true}>by position</option></select
          ></label
        >
        <label class="mt-2 grid gap-1"
          >An older version there <select
            bind:value={onVersion}
            class="border-hair bg-surface text-ink h-8 rounded border py-0 text-[13.5px]"
            ><option value="replace">Replace (hide the old one)</option><option value="keep">Keep both</option
            ><option value="skip">Keep the old one</option></select
          ></label
        >
        <label class="mt-2 grid gap-1"
          >Name of the batch <input
            bind:value={title}
            maxlength="200"
            class="border-hair bg-surface text-ink h-8 rounded border px-2"
          /></label
        >
        <p class="text-quiet mt-2 text-[12.5px]">
          Dates move to the new term. Everything lands hidden, and each course is read back and compared.
        </p>
        <form method="POST" action="?/start" use:enhance class="mt-3">
          <input
            type="hidden"
            name="batch"
            value={JSON.stringify({
              title,
              kinds,
              onVersion,
              byPosition,
              pairs: ready.map(({ source, dest, kinds: own }) => ({ source, dest, kinds: own })),
            })}
          />
          <Button type="submit" color="primary" disabled={ready.length === 0 || kinds.length === 0}
            >Bring {plural(ready.length, 'course')}</Button
          >
        </form>
      </aside>
    </div>
  {/if}
</Page>
