<script lang="ts">
  import type { CourseReceipt } from '$lib/shared/types';
  import { plural, readable } from '../format';

  let { course }: { course: CourseReceipt } = $props();
  const stamp = (iso: string | null): string => (iso ? `${iso.slice(0, 10)} ${iso.slice(11, 19)} UTC` : '');
</script>

<dl class="mb-4 grid grid-cols-[96px_minmax(0,1fr)] gap-x-3 gap-y-0.5 text-[13.5px]">
  {#if course.from}<dt class="text-quiet">From</dt>
    <dd>{course.from}</dd>{/if}
  <dt class="text-quiet">Landed in</dt>
  <dd>{course.to}</dd>
  <dt class="text-quiet">Sent by</dt>
  <dd>{course.by}</dd>
  <dt class="text-quiet">Differences</dt>
  <dd>{plural(course.accepted, 'one accepted', 'accepted')}, <b>{course.open} open</b></dd>
</dl>
<h3 class="text-[14px]">Planned</h3>
<ul class="mb-3">
  {#each course.planned as p, n (n)}<li class="border-hair border-b py-1 text-[13px]">
      <span class="font-serif text-[14.5px]" dir="auto">{p.name}</span>
      <span class="text-quiet">{p.kind}, {p.action}</span>
    </li>{/each}
</ul>
{#if course.differences.length > 0}
  <h3 class="text-[14px]">Not as planned</h3>
  <ul class="mb-3">
    {#each course.differences as d, at (at)}
      <li class="border-hair border-b py-1 text-[13px]">
        <span dir="auto">{d.what}</span>: planned {readable(d.planned) || 'nothing'}, found {readable(
          d.found,
        ) || 'nothing'}.
        {#if d.accepted}<span class="text-quiet"
            >Accepted by {d.accepted.by}, {stamp(d.accepted.at)}: “{d.accepted.reason}”</span
          >{:else}<b>Open</b>{/if}
      </li>
    {/each}
  </ul>
{/if}
{#each course.notes as note, n (n)}<p class="mb-2 text-[13px]">{note}</p>{/each}
<h3 class="text-[14px]">Steps</h3>
<ul class="mb-4">
  {#each course.steps as s, n (n)}<li class="border-hair flex gap-3 border-b py-1 text-[13px]">
      <span class="w-[190px] shrink-0">{s.name}</span><span class="text-quiet grow">{s.says || s.state}</span
      ><span class="num text-quiet whitespace-nowrap">{stamp(s.ended)}</span>
    </li>{/each}
</ul>
