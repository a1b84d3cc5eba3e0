<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { CourseListing } from '$lib/shared/courses';
  import type { Gradable } from '$lib/shared/transfers';
  import { ask } from '../ask';
  import { snapshotOf } from '../courses/snapshot';
  import { plural } from '../format';
  import { live } from '../live.svelte';

  /** Sends a rubric into a course and says at once what it is to grade there. */
  interface Props {
    courses: readonly CourseListing[];
    /** The package that the rubric goes in, and, where that holds others, which of them. */
    packed: () => Promise<{ readonly package: string; readonly rubric: string | null }>;
  }
  let { courses, packed }: Props = $props();
  let course = $state('');
  let gradable = $state.raw<readonly Gradable[] | null>(null);
  let chosen = $state<string[]>([]);
  let says = $state('');
  let trouble = $state('');
  const TRIES = 40;
  const AFTER_MS = 300;

  async function doing(work: () => Promise<void>): Promise<void> {
    trouble = '';
    await work().catch((error: Error) => (trouble = error.message));
    says = '';
  }
  const look = (): Promise<void> =>
    doing(async () => {
      [gradable, chosen] = [null, []];
      const listed = courses.find((c) => c.id === course);
      if (!listed) return;
      await snapshotOf(listed, (said) => (says = said));
      const response = await fetch(`/api/courses/${encodeURIComponent(course)}/gradable`);
      if (!response.ok) throw new Error('The course could not be read. Choose it again.');
      gradable = (await response.json()) as Gradable[];
    });
  /** A package that was made just now has to be read first. */
  async function begun(body: object): Promise<{ id: string }> {
    for (let tries = 1; ; tries++) {
      try {
        return await ask<{ id: string }>('/api/transfers', body);
      } catch (error) {
        if (tries === TRIES) throw error;
        await new Promise((done) => setTimeout(done, AFTER_MS));
      }
    }
  }
  const send = (): Promise<void> =>
    doing(async () => {
      says = 'Preparing the transfer…';
      const { package: packageId, rubric } = await packed();
      const { id } = await begun({
        from: { packageId },
        to: course,
        attach: chosen,
        ...(rubric ? { ticks: [{ kind: 'rubric', nodeId: rubric }] } : {}),
      });
      await live.go(`/transfers/${id}/landing`);
    });
</script>

<details class="border-hair bg-surface mb-3 border px-4 py-2">
  <summary class="cursor-pointer font-semibold">Attach in a course…</summary>
  <div class="mt-2 flex flex-wrap items-center gap-3">
    <label class="flex items-center gap-2"
      >Course <select
        bind:value={course}
        onchange={look}
        class="border-hair bg-surface text-ink h-8 max-w-[420px] rounded border py-0 text-[14px]"
      >
        <option value="">choose</option>
        {#each courses as c (c.id)}<option value={c.id}
            >{c.title}, section {c.section}, {c.term}, {c.system}</option
          >{/each}
      </select></label
    >
    <span role="status" class="text-quiet">{says}</span>
  </div>
  {#if gradable}
    {#if gradable.length === 0}<p class="text-quiet mt-2">
        Nothing in this course is graded by hand. The rubric can still be brought in.
      </p>{/if}
    <fieldset class="mt-2">
      <legend class="text-quiet text-[12.5px] font-semibold">What it grades there</legend>
      {#each gradable as g, n (n)}
        <label class="flex min-h-6 items-center gap-2"
          ><input
            type="checkbox"
            value={g.id}
            bind:group={chosen}
            class="border-quiet text-agave size-[15px] rounded-sm dark:bg-transparent"
          /><span dir="auto">{g.name}</span>
          <span class="text-quiet"
            >{g.kind === 'assignment' ? 'assignment' : 'question'}, {plural(g.points, 'point')}</span
          ></label
        >
      {/each}
    </fieldset>
    <Button color="primary" class="mt-2" disabled={says !== ''} onclick={send}>Next: Landing</Button>
  {/if}
  {#if trouble}<p class="text-brick mt-2" role="alert">{trouble}</p>{/if}
</details>
