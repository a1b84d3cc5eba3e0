<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { untrack } from 'svelte';
  import type { QuizHead, VersionsView } from '$lib/shared/quizzes';
  import { ask } from '../ask';
  import { plural } from '../format';
  import { quizApi } from './paths';
  import VersionFiles from './VersionFiles.svelte';

  /** Versions A, B, C … of a quiz: what each holds, what neighbours share, and the files. */
  let { quiz }: { quiz: QuizHead } = $props();
  let count = $state(2);
  let seed = $state('1');
  let made = $state.raw<{
    readonly count: number;
    readonly seed: string;
    readonly view: VersionsView;
  } | null>(null);
  let trouble = $state('');
  let busy = $state(false);
  const MOST = 26;

  async function make(): Promise<void> {
    const asked = { count: Math.round(count), seed: seed.trim() };
    if (!(asked.count >= 1 && asked.count <= MOST)) {
      trouble = `From 1 to ${MOST} versions can be made here.`;
      return;
    }
    busy = true;
    trouble = '';
    try {
      const view = await ask<VersionsView>(quizApi(quiz.packageId, quiz.id), { what: 'versions', ...asked });
      made = { ...asked, view };
    } catch (problem) {
      trouble = (problem as Error).message;
    }
    busy = false;
  }
  $effect(() => untrack(() => void make()));

  const field = 'border-hair bg-surface text-ink block h-8 rounded border px-2 text-[14px]';
  const rows = $derived(Math.max(0, ...(made?.view.versions.map((v) => v.items.length) ?? [])));
  const near = ([shared, least]: readonly [number, number]): string =>
    shared === least ? `${shared}, the least there can be` : `${shared}; at least ${least}`;
</script>

<form
  class="flex flex-wrap items-end gap-x-4 gap-y-2"
  onsubmit={(e) => {
    e.preventDefault();
    void make();
  }}
>
  <label class="text-quiet text-[12.5px]"
    >Versions<input class="{field} num w-20" type="number" min="1" max={MOST} bind:value={count} /></label
  >
  <label class="text-quiet text-[12.5px]"
    >Seed, any text<input class="{field} w-44" dir="auto" maxlength="200" bind:value={seed} /></label
  >
  <Button type="submit" color="alternative" disabled={busy}>Make them</Button>
  <span class="text-quiet pb-1.5 text-[13px]">The same seed gives the same versions.</span>
</form>
{#if trouble}<p class="text-brick mt-2" role="alert">{trouble}</p>{/if}

{#if made}
  {@const versions = made.view.versions}
  {#each made.view.findings as f, n (n)}<p class="text-ochre mt-3">{f.message} {f.hint}</p>{/each}
  <VersionFiles {quiz} count={made.count} seed={made.seed} names={versions.map((v) => v.name)} />

  {#if made.view.sharing.length > 0}
    <h2 class="mt-6 mb-1 text-[15px]">What neighbours share</h2>
    <div class="overflow-x-auto">
      <table class="w-full max-w-[760px] text-[13.5px]">
        <thead
          ><tr class="border-hair text-quiet border-b text-left"
            ><th scope="col" class="py-1 pr-4 font-normal">Versions</th><th
              scope="col"
              class="py-1 pr-4 font-normal">Same questions</th
            ><th scope="col" class="py-1 pr-4 font-normal">At the same number</th><th
              scope="col"
              class="py-1 font-normal">Choices at the same letter</th
            ></tr
          ></thead
        >
        <tbody>
          {#each made.view.sharing as s (s.versions.join())}<tr class="border-hair border-b"
              ><th scope="row" class="py-1 pr-4 text-left font-semibold">{s.versions.join(' and ')}</th><td
                class="num py-1 pr-4">{near(s.items)}</td
              ><td class="num py-1 pr-4">{near(s.places)}</td><td class="num py-1">{near(s.choices)}</td></tr
            >{/each}
        </tbody>
      </table>
    </div>
  {/if}

  <h2 class="mt-6 mb-1 text-[15px]">Which question stands where</h2>
  <!-- A wide table scrolls in a box of its own, which the keyboard can reach. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="overflow-x-auto" role="region" aria-label="Which question stands where" tabindex="0">
    <table
      class="w-full table-fixed text-[13.5px]"
      style="min-width: {40 + 260 * versions.length}px; max-width: {40 + 620 * versions.length}px"
      data-testid="version-table"
    >
      <thead
        ><tr class="border-hair border-b text-left"
          ><th scope="col" class="num w-10 py-1 pr-3 text-right">No.</th>{#each versions as v (v.name)}<th
              scope="col"
              class="py-1 pr-6"
              >Version {v.name} <span class="text-quiet font-normal">{plural(v.points, 'point')}</span></th
            >{/each}</tr
        ></thead
      >
      <tbody>
        {#each { length: rows } as _, at (at)}<tr class="border-hair border-b align-top"
            ><th scope="row" class="num py-1 pr-3 text-right font-normal">{at + 1}</th
            >{#each versions as v (v.name)}
              {@const item = v.items[at]}
              <td class="py-1 pr-6"
                >{#if item}<span class="block truncate font-serif text-[14.5px]" dir="auto" title={item.name}
                    >{item.name}</span
                  ><span class="text-quiet num text-[12.5px]">{item.choices}</span>{/if}</td
              >{/each}</tr
          >{/each}
      </tbody>
    </table>
  </div>
  <p class="text-quiet mt-2 text-[12.5px]">
    Under each question its choices, by the letters they have in the quiz, in the order of this version.
  </p>
{/if}
