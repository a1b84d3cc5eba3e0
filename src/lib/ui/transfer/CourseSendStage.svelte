<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import Modal from 'flowbite-svelte/Modal.svelte';
  import { STEP_WORDS, type CourseListing, type Plan, type Run } from '$lib/shared/courses';
  import type { ContentsView, JobView } from '$lib/shared/types';
  import { TARGET_NAMES, type TargetName } from '$lib/shared/stages';
  import { live } from '../live.svelte';
  import { count, plural, when } from '../format';
  import { command } from './command';
  import { goesShort } from './goes';

  interface Props {
    transferId: string;
    from: CourseListing | null;
    fromName: string;
    to: CourseListing | null;
    target: TargetName;
    plan: Plan | null;
    run: Run | null;
    running: boolean;
    job: JobView | null;
    contents: ContentsView;
    losses: number;
    base: string;
  }
  let { transferId, from, fromName, to, target, plan, run, running, job, contents, losses, base }: Props =
    $props();
  let trouble = $state('');
  let asking = $state(false);
  const going = $derived((plan?.landings ?? []).filter((l) => l.action !== 'skip'));
  const staying = $derived((plan?.landings ?? []).filter((l) => l.action === 'skip'));
  const ready = $derived(plan !== null && plan.troubles.length === 0 && plan.landings.length > 0);
  const refusedCounts = $derived(run?.failure?.includes('sections') ?? false);
  const progress = $derived(job ? (live.jobs[job.id]?.step ?? '') : '');
  const ask = async (body: Record<string, unknown>): Promise<void> => {
    trouble = await command(transferId, body);
  };
  const seconds = (from: number, to: number): string => `${((to - from) / 1000).toFixed(1)} s`;
  const marks = { waiting: '○', running: '◐', done: '●', failed: '✕', passed: '–' } as const;
  const words = {
    waiting: 'waits',
    running: 'under way',
    done: 'done',
    failed: 'stopped',
    passed: 'not needed',
  } as const;
</script>

<div class="grid max-w-[980px] gap-4">
  <section class="border-hair bg-surface border px-5 py-4" aria-labelledby="review">
    <h2 id="review" class="text-[15px]">{run ? 'What this transfer is' : 'Look it over, then send'}</h2>
    <dl class="mt-2 grid grid-cols-[120px_minmax(0,1fr)] gap-x-3 gap-y-1">
      <dt class="text-quiet">From</dt>
      <dd>
        {from
          ? `${from.title} (${from.code}), section ${from.section}, ${from.term}, ${from.system}`
          : fromName}
      </dd>
      <dt class="text-quiet">Lands in</dt>
      <dd class="font-semibold">
        {to
          ? `${to.title} (${to.code}), section ${to.section}, ${to.term}, ${to.system}`
          : 'a course no longer in sight'}
      </dd>
      <dt class="text-quiet">Goes</dt>
      <dd>
        {#if plan === null}working it out…
        {:else if going.length === 0}nothing: all of it is there already
        {:else}{going.map((l) => l.name).join(', ')}; {goesShort(contents)}{/if}
      </dd>
      {#if staying.length > 0}<dt class="text-quiet">Is there already</dt>
        <dd>{staying.map((l) => l.name).join(', ')}</dd>{/if}
      <dt class="text-quiet">Stays behind</dt>
      <dd>{contents.behind.length === 0 ? 'nothing' : plural(contents.behind.length, 'thing')}</dd>
      <dt class="text-quiet">Travels as</dt>
      <dd>
        {TARGET_NAMES[target]}, {losses === 0 ? 'which carries all of it' : ''}{#if losses > 0}<a
            class="act"
            href="{base}/forecast">{plural(losses, 'thing')} it cannot carry</a
          >{/if}
      </dd>
    </dl>
    {#each plan?.troubles ?? [] as said, n (n)}<p class="text-brick mt-2" role="alert">
        {said} <a class="act" href="{base}/landing">Landing</a>
      </p>{/each}
    <div class="mt-3 flex flex-wrap items-center gap-4">
      {#if running}<Button
          size="sm"
          color="alternative"
          onclick={() => job && fetch(`/api/jobs/${job.id}`, { method: 'DELETE' })}>Stop</Button
        ><span class="text-quiet">It goes on when you leave the page, and tells you when it is done.</span>
      {:else if run?.failure}
        <Button size="sm" color="primary" onclick={() => ask({ do: 'goOn' })}>Go on from there</Button>
        {#if refusedCounts}<Button
            size="sm"
            color="alternative"
            onclick={() => ask({ do: 'goOn', sectionsAs: 'destination' })}
            >Go on with that course’s sections</Button
          >{/if}
      {:else}
        <Button
          size="sm"
          color={run ? 'alternative' : 'primary'}
          disabled={!ready}
          onclick={() => ask({ do: 'send' })}>{run ? 'Send again' : 'Send it'}</Button
        >
        {#if run?.endedAt}<Button size="sm" color="primary" href="{base}/arrival">See what arrived</Button
          >{/if}
      {/if}
      {#if run && !running && run.created.length > 0}<button
          type="button"
          class="act ml-auto"
          onclick={() => (asking = true)}>Take it back…</button
        >{/if}
    </div>
    {#if trouble}<p class="text-brick mt-2" role="alert">{trouble}</p>{/if}
    {#if run?.undone}<p class="mt-2" role="status">
        Taken back {when(run.undone.at)}: {run.undone.removed.length === 0
          ? 'nothing'
          : run.undone.removed.join(', ')}.
        {#each run.undone.refused as said, n (n)}<span class="text-brick block">{said}</span>{/each}
      </p>{/if}
  </section>
  {#if run}
    <section class="border-hair bg-surface border px-5 py-4" aria-labelledby="steps">
      <h2 id="steps" class="text-[15px]">
        {running ? 'Under way' : run.failure ? 'Stopped' : 'Sent'}
        <span class="text-quiet font-normal">by {run.by}, {when(run.startedAt)}</span>
      </h2>
      <ol class="mt-2">
        {#each run.steps as s (s.name)}
          <li
            class="border-hair grid grid-cols-[18px_220px_minmax(0,1fr)_auto] items-baseline gap-x-3 border-t py-1.5"
          >
            <span
              class={s.state === 'failed' ? 'text-brick' : s.state === 'done' ? 'text-agave' : 'text-quiet'}
              aria-hidden="true">{marks[s.state]}</span
            >
            <span>{STEP_WORDS[s.name]}<span class="sr-only">, {words[s.state]}</span></span>
            <span class={s.state === 'failed' ? 'text-brick' : 'text-quiet'}
              >{s.state === 'running' && progress ? progress : s.says}</span
            >
            <span class="num text-quiet text-[12.5px]"
              >{s.startedAt && s.endedAt
                ? seconds(s.startedAt, s.endedAt)
                : s.state === 'running'
                  ? 'now'
                  : ''}</span
            >
          </li>
        {/each}
      </ol>
      {#each run.notes as note, n (n)}<p class="text-saddle mt-2">{note}</p>{/each}
      {#if run.failure}<p class="text-brick mt-2 font-semibold" role="alert">{run.failure}</p>
        <p class="text-quiet">
          What has landed stays. Going on sends only what has not, and makes no second copy.
        </p>{/if}
    </section>
  {/if}
</div>
<Modal bind:open={asking} title="Take it back?" size="sm">
  <p>
    What this transfer made in {to?.title ?? 'the course'} is taken out there: {plural(
      run?.created.length ?? 0,
      'thing',
    )}.
    {#if (run?.setAside.length ?? 0) > 0}{count(run!.setAside.length)} older ones get their name and place again.{/if}
    What students have begun, the course keeps, and it is said here.
  </p>
  <div class="mt-3 flex gap-3">
    <Button
      size="sm"
      color="primary"
      onclick={() => {
        asking = false;
        void ask({ do: 'undo' });
      }}>Take it back</Button
    >
    <Button size="sm" color="alternative" onclick={() => (asking = false)}>Leave it there</Button>
  </div>
</Modal>
