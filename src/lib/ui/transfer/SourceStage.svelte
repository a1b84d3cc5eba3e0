<script lang="ts">
  import type { CourseListing } from '$lib/shared/courses';
  import type { PackageListing } from '$lib/shared/types';
  import { courseSays } from './places';
  import { bytes, formatName, plural, when } from '../format';

  interface Props {
    source: PackageListing;
    sha256: string;
    /** The course it comes from; null for a file in hand. */
    from: CourseListing | null;
    base: string;
  }
  let { source, sha256, from, base }: Props = $props();
</script>

<div class="border-hair bg-surface max-w-[860px] border px-5 py-4">
  <h2 class="font-serif text-[18px]">
    <a class="hover:underline" href="/packages/{source.id}">{source.name}</a>
  </h2>
  {#if from}<p>
      From <a class="act" href="/courses/{encodeURIComponent(from.id)}">{courseSays(from)}</a>
    </p>{/if}
  {#if source.summary}
    <p>
      {formatName(source.summary.format)}, {plural(source.summary.items, 'item')}, {plural(
        source.summary.points,
        'point',
      )}, {plural(source.summary.quizzes, 'quiz', 'quizzes')}, {plural(source.summary.banks, 'bank')}
    </p>
  {/if}
  <p class="text-quiet">
    {bytes(source.bytes)}, came in {when(source.broughtAt)}. It is kept as it came and is never changed.
  </p>
  <p class="text-quiet mt-1 text-[12.5px]">SHA-256 <span class="font-mono break-all">{sha256}</span></p>
  {#if source.summary && source.summary.errors + source.summary.warnings > 0}
    <p class="text-ochre mt-2 font-semibold">
      {plural(source.summary.errors, 'error')} and {plural(source.summary.warnings, 'warning')} were found in it.
      <a class="act" href="/packages/{source.id}">Look at them in the package</a>
    </p>
  {/if}
  <p class="mt-3"><a class="act" href="{base}/contents">Choose what to include</a></p>
</div>
