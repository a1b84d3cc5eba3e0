<script lang="ts">
  import { onMount, type ComponentProps } from 'svelte';
  import Button from 'flowbite-svelte/Button.svelte';
  import type { Arrival, JobView, PackageListing } from '$lib/shared/types';
  import { ask } from '../ask';
  import { plural, when } from '../format';
  import { dropTarget, live } from '../live.svelte';
  import { command } from './command';
  import FindingNote from '../room/FindingNote.svelte';
  import DropZone from '../shell/DropZone.svelte';
  import Differences from './Differences.svelte';
  import type { Judged } from './types';
  import { FACET_NAMES, troubledContainers } from '../seam/rows';
  import ArrivedRubrics from '../rubrics/ArrivedRubrics.svelte';
  import Seam from '../seam/Seam.svelte';

  interface Props {
    transferId: string;
    arrival: Arrival | null;
    /** Each rubric of the plan beside what became of it. */
    rubrics: ComponentProps<typeof ArrivedRubrics>['rubrics'];
    comparedAt: number | null;
    source: PackageListing;
    arrived: PackageListing | null;
    others: readonly PackageListing[];
    job: JobView | null;
    /** What a transfer into a course has to decide; null where a file came back. */
    course: {
      readonly differences: readonly Judged[];
      readonly notes: readonly string[];
      readonly running: boolean;
      readonly name: string;
    } | null;
    base: string;
  }
  let { transferId, arrival, rubrics, comparedAt, source, arrived, others, job, course, base }: Props =
    $props();
  let again = $state(false);
  let inSight = $state<'questions' | 'rubrics'>('questions');
  const noQuestions = $derived(arrival !== null && arrival.left.length + arrival.right.length === 0);
  const sight = $derived(rubrics.length > 0 && noQuestions ? 'rubrics' : inSight);
  let picked = $state('');
  let trouble = $state('');
  const working = $derived(job?.state === 'queued' || job?.state === 'running');
  const troubled = $derived(arrival && !course ? troubledContainers(arrival.comparison) : []);
  const landedWell = $derived(
    (course?.differences ?? []).filter((d) => d.key.startsWith('landing ')).length === 0,
  );
  const verdict = $derived(arrival?.comparison.verdict);
  const titles = {
    intact: 'All of it arrived, and nothing differs.',
    altered: 'All of it arrived; some of it differs.',
    incomplete: 'Not all of it arrived.',
  } as const;

  async function take(packageId: string): Promise<void> {
    const otherwise = 'It could not be compared. The file is kept; try again.';
    trouble = await ask(`/api/transfers/${transferId}/arrive`, { packageId }, { otherwise }).then(
      () => '',
      (error: Error) => error.message,
    );
    again = false;
    await live.reload();
  }
  onMount(() => {
    if (course) return;
    dropTarget.label = 'Let go: it is compared with what was sent';
    dropTarget.take = async (brought) => {
      if (brought[0]) await take(brought[0].id);
    };
    return () => {
      dropTarget.take = null;
      dropTarget.label = '';
    };
  });
</script>

{#if course && !arrival}
  <p class="text-quiet">
    {course.running
      ? 'It is on its way; what arrives is read back and compared by itself.'
      : 'Nothing has been sent yet.'}
    <a class="act" href="{base}/send">Send</a>
  </p>
{:else if !arrival || again}
  <div class="grid max-w-[980px] gap-3">
    <DropZone
      title="Drop what the other system exported"
      hint="It is read like any package and compared, item by item, with what was sent. Nothing is changed."
    />
    {#if others.length > 0}
      <div class="flex items-center gap-3">
        <label for="other" class="text-quiet">or take a package that is here already</label>
        <select
          id="other"
          bind:value={picked}
          class="border-hair bg-surface text-ink rounded border py-1 text-[14px]"
        >
          <option value="">Choose…</option>
          {#each others as other (other.id)}<option value={other.id}>{other.name}</option>{/each}
        </select>
        <Button size="sm" color="alternative" disabled={picked === ''} onclick={() => take(picked)}
          >Compare</Button
        >
        {#if again}<button type="button" class="act" onclick={() => (again = false)}>Leave it</button>{/if}
      </div>
    {/if}
    {#if working}<p role="status">{job?.step || 'Comparing…'}</p>{/if}
    {#if trouble}<p class="text-brick">{trouble}</p>{/if}
    {#if job?.state === 'failed' && job.failure}<FindingNote found={job.failure} place />{/if}
  </div>
{:else}
  <div class="flex flex-wrap items-baseline gap-x-4">
    <p
      class="text-[15px] font-semibold {verdict === 'intact'
        ? ''
        : verdict === 'altered'
          ? 'text-ochre'
          : 'text-brick'}"
      data-testid="verdict"
    >
      {verdict === 'intact' && !landedWell
        ? 'All of it arrived as it was, but not all of it as planned.'
        : titles[arrival.comparison.verdict]}
    </p>
    {#each troubled as c, n (n)}
      <details class="text-[13.5px]">
        <summary
          ><span class="capitalize">{c.kind}</span> “{c.source ?? c.arrived}” {c.state === 'altered'
            ? c.differences.map((d) => FACET_NAMES[d.facet]).join(', ')
            : c.state}</summary
        >
        {#each c.differences as d, n (n)}<p class="text-quiet">
            {FACET_NAMES[d.facet]}: {d.from} → {d.to}
          </p>{/each}
      </details>
    {/each}
    {#if arrival.comparison.missingFiles.length > 0}<span class="text-brick text-[13.5px]"
        >{plural(arrival.comparison.missingFiles.length, 'file')} missing: {arrival.comparison.missingFiles
          .slice(0, 3)
          .join(', ')}</span
      >{/if}
  </div>
  {#if course}<Differences
      {transferId}
      differences={course.differences}
      notes={course.notes}
      running={course.running}
    />{/if}
  {#if rubrics.length > 0 && !noQuestions}
    <div class="flex gap-4" role="group" aria-label="What is shown">
      {#each [{ id: 'questions', says: plural(arrival.left.length, 'question') }, { id: 'rubrics', says: `${plural(rubrics.length, 'rubric')}${rubrics.some((r) => r.state !== 'intact') ? ', not as planned' : ', intact'}` }] as const as b (b.id)}<button
          type="button"
          class="act aria-pressed:text-ink aria-pressed:font-semibold aria-pressed:no-underline"
          aria-pressed={inSight === b.id}
          onclick={() => (inSight = b.id)}>{b.says}</button
        >{/each}
    </div>
  {/if}
  {#if sight === 'rubrics'}<ArrivedRubrics
      {rubrics}
      leftName="planned"
      rightName={course?.name ?? arrived?.name ?? 'arrived'}
    />{:else}<Seam
      {arrival}
      leftTitle={course ? 'Planned' : 'Sent'}
      rightTitle="Arrived"
      accepted={new Set(
        (course?.differences ?? []).flatMap((d) =>
          d.decision && /^(?:item|missing) /u.test(d.key) ? [d.key.slice(d.key.indexOf(' ') + 1)] : [],
        ),
      )}
      leftFrom={source.name}
      rightFrom="{course?.name ?? arrived?.name ?? ''}{comparedAt ? `, compared ${when(comparedAt)}` : ''}"
    />{/if}
  <div class="flex items-center gap-3">
    <Button href="{base}/receipt" size="sm" color="primary">Receipt</Button>
    {#if course}<Button
        size="sm"
        color="alternative"
        disabled={course.running}
        onclick={() => command(transferId, { do: 'check' })}>Look again</Button
      >
      <a class="act" href="/bring?repeat={transferId}">The same into another course…</a>
    {:else}<Button size="sm" color="alternative" onclick={() => (again = true)}
        >Compare another export…</Button
      >{/if}
    <span class="text-quiet ml-auto text-[12.5px] max-md:hidden"
      >{sight === 'questions' ? 'N next difference · Enter unfolds · ? keys' : '? keys'}</span
    >
  </div>
{/if}
