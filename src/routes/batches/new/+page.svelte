<script lang="ts">
  import { enhance } from '$app/forms';
  import { goto } from '$app/navigation';
  import type { ThingKind } from '@alforja/core';
  import Button from 'flowbite-svelte/Button.svelte';
  import { holds } from '$lib/ui/courses/holds';
  import { plural } from '$lib/ui/format';

  let { data, form } = $props();
  type Kind = ThingKind;
  const KINDS = ['quiz', 'bank', 'rubric', 'link'] as const satisfies readonly Kind[];
  interface Line {
    readonly source: string;
    readonly name: string;
    readonly holds: string;
    readonly dest: string;
    /** What is otherwise for this pair; null is as the plan says. */
    readonly kinds: readonly Kind[] | null;
  }
  const lineOf = (p: (typeof data.pairs)[number]): Line => ({
    source: p.source.id,
    name: `${p.source.code} ${p.source.title}, section ${p.source.section}`,
    holds: `${holds(p.source)}; ${plural(p.source.items, 'question')}`,
    dest: p.dest,
    kinds: null,
  });
  const given = $derived(form && 'csv' in form ? form.csv : null);
  /** As proposed, or as the table that was dropped says; then by hand. */
  const proposed = $derived(
    data.pairs
      .map(lineOf)
      .map((l) => (given ? { ...l, dest: given.find((p) => p.source === l.source)?.dest ?? '' } : l)),
  );
  let byHand = $state<Record<string, Partial<Pick<Line, 'dest' | 'kinds'>>>>({});
  const lines = $derived(proposed.map((l): Line => ({ ...l, ...byHand[l.source] })));
  const set = (l: Line, change: Partial<Pick<Line, 'dest' | 'kinds'>>): void => {
    byHand[l.source] = { ...byHand[l.source], ...change };
  };
  let kinds = $state<Kind[]>([...KINDS]);
  let onVersion = $state('replace');
  let byPosition = $state(false);
  // svelte-ignore state_referenced_locally
  let title = $state(`${data.from} to ${data.to}`);
  const ready = $derived(lines.filter((l) => l.dest !== '' && l.kinds?.length !== 0));
  const twice = $derived(
    new Set(lines.map((l) => l.dest).filter((d, at, all) => d !== '' && all.indexOf(d) !== at)),
  );
  const term = (key: 'from' | 'to', value: string): void => {
    const next = { from: data.from, to: data.to, [key]: value };
    void goto(`/batches/new?from=${encodeURIComponent(next.from)}&to=${encodeURIComponent(next.to)}`);
  };
  const exceptions = [
    { value: '', says: 'as planned' },
    { value: 'quiz,bank', says: 'without links' },
    { value: 'bank', says: 'only banks' },
    { value: 'quiz', says: 'only quizzes, with what they need' },
    { value: 'none', says: 'leave this course out' },
  ];
  const names = { quiz: 'quizzes', bank: 'banks', rubric: 'rubrics', link: 'links' } as const;
</script>

<svelte:head><title>Many courses at once · Alforja</title></svelte:head>
<div class="mx-auto max-w-[1232px] px-6 py-5">
  <p class="text-quiet text-[13px]"><a class="act" href="/courses">Courses</a></p>
  <h1 class="mb-3 font-serif text-[22px]">Many courses at once</h1>
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
          onchange={(e) => e.currentTarget.form?.requestSubmit()}
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
      <div class="border-hair bg-surface overflow-x-auto border">
        <table class="w-full text-left">
          <thead class="text-quiet border-hair border-b text-[12.5px]"
            ><tr
              ><th class="px-4 py-2 font-semibold">Old course</th><th class="px-3 py-2 font-semibold"
                >New course</th
              ><th class="px-4 py-2 font-semibold">What comes</th></tr
            ></thead
          >
          <tbody>
            {#each lines as l (l.source)}
              <tr class="border-hair border-b last:border-0">
                <td class="px-4 py-2"
                  ><span class="block font-serif text-[15.5px]" dir="auto">{l.name}</span><span
                    class="text-quiet text-[12.5px]">{l.holds}</span
                  ></td
                >
                <td class="px-3 py-2">
                  <select
                    aria-label="New course for {l.name}"
                    value={l.dest}
                    onchange={(e) => set(l, { dest: e.currentTarget.value })}
                    class="border-hair bg-surface text-ink h-8 w-full max-w-[330px] rounded border py-0 text-[13.5px] {l.dest ===
                      '' || twice.has(l.dest)
                      ? 'border-ochre'
                      : ''}"
                  >
                    <option value="">none: left out</option>
                    {#each data.destinations as d (d.id)}<option value={d.id}
                        >{d.code} {d.title}, section {d.section}, {d.system}</option
                      >{/each}
                  </select>
                  {#if twice.has(l.dest)}<span class="text-ochre block text-[12.5px]"
                      >two courses go here</span
                    >{/if}
                </td>
                <td class="px-4 py-2">
                  <select
                    aria-label="What comes from {l.name}"
                    value={l.kinds === null ? '' : l.kinds.length === 0 ? 'none' : l.kinds.join(',')}
                    onchange={(e) => {
                      const v = e.currentTarget.value;
                      set(l, { kinds: v === '' ? null : v === 'none' ? [] : (v.split(',') as Kind[]) });
                    }}
                    class="border-hair bg-surface text-ink h-8 rounded border py-0 text-[13.5px]"
                  >
                    {#each exceptions as x (x.value)}<option value={x.value}>{x.says}</option>{/each}
                  </select>
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
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
            ><option value="replace">makes way, hidden</option><option value="keep">stays beside it</option
            ><option value="skip">stays instead</option></select
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
          <Button type="submit" size="sm" color="primary" disabled={ready.length === 0 || kinds.length === 0}
            >Bring {plural(ready.length, 'course')}</Button
          >
        </form>
      </aside>
    </div>
  {/if}
</div>
