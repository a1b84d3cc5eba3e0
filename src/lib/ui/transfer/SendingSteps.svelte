<script lang="ts">
  import { stepWords } from '$lib/shared/stages';
  import type { Sending } from '$lib/shared/transfers';
  import type { JobView } from '$lib/shared/types';
  import { when } from '../format';
  import { live } from '../live.svelte';

  interface Props {
    sending: Sending;
    running: boolean;
    toCourse: boolean;
    job: JobView | null;
  }
  let { sending, running, toCourse, job }: Props = $props();
  const progress = $derived(job ? (live.jobs[job.id]?.step ?? '') : '');
  const words = $derived(stepWords(toCourse));
  const title = $derived(running ? 'Under way' : sending.failure ? 'Stopped' : toCourse ? 'Sent' : 'Steps');
  const seconds = (from: number, to: number): string => `${((to - from) / 1000).toFixed(1)} s`;
  const MARKS = { waiting: '○', running: '◐', done: '●', failed: '✕', passed: '–' } as const;
  const STATES = {
    waiting: 'waiting',
    running: 'under way',
    done: 'done',
    failed: 'stopped',
    passed: 'not needed',
  } as const;
</script>

<section class="border-hair bg-surface border px-5 py-4" aria-labelledby="steps">
  <h2 id="steps" class="text-[15px]">
    {title}
    <span class="text-quiet font-normal">by {sending.by}, {when(sending.startedAt)}</span>
  </h2>
  <ol class="mt-2">
    {#each sending.steps as s (s.name)}
      <li
        class="border-hair grid grid-cols-[18px_220px_minmax(0,1fr)_auto] items-baseline gap-x-3 border-t py-1.5"
      >
        <span
          class={s.state === 'failed' ? 'text-brick' : s.state === 'done' ? 'text-agave' : 'text-quiet'}
          aria-hidden="true">{MARKS[s.state]}</span
        >
        <span>{words[s.name] ?? s.name}<span class="sr-only">, {STATES[s.state]}</span></span>
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
  {#each sending.notes as note, n (n)}<p class="text-saddle mt-2">{note}</p>{/each}
  {#if sending.failure}<p class="text-brick mt-2 font-semibold" role="alert">{sending.failure.detail}</p>
    {#if toCourse}<p class="text-quiet">
        What has arrived stays. Resuming sends only the rest and makes no second copy.
      </p>{/if}{/if}
</section>
