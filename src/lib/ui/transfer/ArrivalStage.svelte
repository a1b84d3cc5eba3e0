<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { ArrivalShown } from '$lib/shared/arrival';
  import type { TransferState } from '$lib/shared/transfers';
  import type { JobView, PackageListing } from '$lib/shared/types';
  import { count, plural, when } from '../format';
  import ArrivedRubrics from '../rubrics/ArrivedRubrics.svelte';
  import Seam from '../seam/Seam.svelte';
  import { command } from './command';
  import Differences from './Differences.svelte';
  import { destinationShort } from './places';
  import ReturnedFile from './ReturnedFile.svelte';

  interface Props {
    transferId: string;
    arrival: ArrivalShown | null;
    comparedAt: number | null;
    source: PackageListing;
    arrived: PackageListing | null;
    others: readonly PackageListing[];
    state: TransferState;
    job: JobView | null;
    base: string;
  }
  let { transferId, arrival, comparedAt, source, arrived, others, state: how, job, base }: Props = $props();
  let again = $state(false);
  let inSight = $state<'questions' | 'rubrics'>('questions');
  const toCourse = $derived(how.to.kind === 'course');
  const place = $derived(destinationShort(how.to, arrived));
  /** Each rubric of the plan beside what became of it. */
  const rubrics = $derived(arrival?.rubrics ?? []);
  const noQuestions = $derived(arrival !== null && arrival.seam.states === '');
  const sight = $derived(rubrics.length > 0 && noQuestions ? 'rubrics' : inSight);
  const misplaced = $derived(arrival?.differences.misplaced ?? false);
  const verdict = $derived(arrival?.verdict);
  const lookedSince = $derived(
    how.takenBack !== null && comparedAt !== null && comparedAt > how.takenBack.at,
  );
  const quizzes = $derived(arrival?.quizzes ?? []);
  const decided = $derived(
    arrival && arrival.differences.accepted > 0
      ? ` ${count(arrival.differences.accepted)} accepted, ${count(arrival.differences.open)} open.`
      : '',
  );
  const TITLES = {
    intact: 'Everything arrived; nothing differs.',
    altered: 'Everything arrived; some of it differs.',
    incomplete: 'Not everything arrived.',
  } as const;
  const COLOURS = { intact: '', altered: 'text-ochre', incomplete: 'text-brick' } as const;
  const views = $derived([
    { id: 'questions' as const, says: plural(arrival?.seam.totals.left.items ?? 0, 'question') },
    {
      id: 'rubrics' as const,
      says: `${plural(rubrics.length, 'rubric')}, ${rubrics.some((r) => r.state !== 'intact') ? 'with differences' : 'intact'}`,
    },
  ]);
</script>

{#if toCourse && !arrival}
  <p class="text-quiet">
    {how.running
      ? 'Sending. The course is read back and compared automatically.'
      : 'Nothing has been sent yet.'}
    <a class="act" href="{base}/send">Send</a>
  </p>
{:else if !arrival || again}
  <ReturnedFile
    {transferId}
    {others}
    {job}
    running={how.running}
    failure={how.sending?.failure?.detail ?? null}
    onleave={again ? () => (again = false) : null}
    ontaken={() => (again = false)}
  />
{:else}
  {#if how.takenBack}
    <p class="text-brick text-[15px] font-semibold" role="status" data-testid="taken-back">
      Undone{how.takenBack.refused.length > 0 ? ' in part' : ''}
      {when(how.takenBack.at)} by {how.takenBack.by}.
      <span class="text-quiet font-normal"
        >What follows was found {lookedSince ? 'since' : 'before that'}.</span
      >
    </p>
  {/if}
  <p
    class="text-[15px] font-semibold {how.takenBack && !lookedSince
      ? 'text-quiet'
      : verdict
        ? COLOURS[verdict]
        : ''}"
    data-testid="verdict"
  >
    {verdict === 'intact' && misplaced
      ? 'Content is intact; placement or settings differ.'
      : TITLES[arrival.verdict]}{decided}
  </p>
  {#if arrival.onPurpose > 0}<p class="text-[13.5px]" data-testid="on-purpose">
      <span class="text-saddle font-semibold">{plural(arrival.onPurpose, 'change')} on purpose</span>
      <span class="text-quiet">arrived as put right before sending.</span>
      <a class="act" href="{base}/receipt#purpose">All of them</a>
    </p>{/if}
  {#if quizzes.length > 0}<p class="text-[13.5px]" data-testid="both-sides">
      <span class="text-quiet">The same answers on both sides:</span>
      {#each quizzes as q, n (q.id)}{n > 0 ? ', ' : ''}<a
          class="act"
          dir="auto"
          href="{base}/both/{encodeURIComponent(q.id)}">{q.name}</a
        >{/each}
    </p>{/if}
  <Differences
    {transferId}
    differences={arrival.differences}
    compared={comparedAt ?? 0}
    notes={how.notes}
    running={how.running}
    {toCourse}
  />
  {#if rubrics.length > 0 && !noQuestions}
    <div class="flex gap-4" role="group" aria-label="What is shown">
      {#each views as v (v.id)}<button
          type="button"
          class="act aria-pressed:text-ink aria-pressed:font-semibold aria-pressed:no-underline"
          aria-pressed={inSight === v.id}
          onclick={() => (inSight = v.id)}>{v.says}</button
        >{/each}
    </div>
  {/if}
  {#if sight === 'rubrics'}<ArrivedRubrics {rubrics} leftName="planned" rightName={place} />
  {:else}<Seam
      {transferId}
      seam={arrival.seam}
      leftTitle={toCourse ? 'Planned' : 'Sent'}
      rightTitle="Arrived"
      leftFrom={source.name}
      rightFrom="{place}{comparedAt ? `, compared ${when(comparedAt)}` : ''}"
    />{/if}
  <div class="flex flex-wrap items-center gap-x-3 gap-y-2">
    <Button href="{base}/receipt" color="primary">Receipt</Button>
    {#if toCourse}<Button
        color="alternative"
        disabled={how.running}
        onclick={() => command(transferId, { do: 'check' })}>Check the course again</Button
      >
    {:else}<Button color="alternative" onclick={() => (again = true)}>Compare another export…</Button>{/if}
    <a class="act" href="/bring?repeat={transferId}"
      >{toCourse ? 'Send to another course…' : 'Send to a course…'}</a
    >
    <span class="text-quiet ml-auto text-[12.5px] max-md:hidden"
      >{sight === 'questions' ? 'N next difference · Enter opens a row · ? keys' : '? keys'}</span
    >
  </div>
{/if}
