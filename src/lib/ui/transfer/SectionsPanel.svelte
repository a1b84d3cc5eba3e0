<script lang="ts">
  import { landingId, type CourseOutline, type Landing } from '@alforja/core';

  interface Props {
    outline: CourseOutline;
    landings: readonly Landing[];
    /** A thing was let go over a section. */
    ondrop: (section: string | null, landing: string) => void;
  }
  let { outline, landings, ondrop }: Props = $props();
  let over = $state<string | null>(null);
  const blocks = $derived([...outline.sections, { id: '', name: 'Outside of sections' }]);
  const coming = (section: string): Landing[] =>
    landings.filter((l) => l.action !== 'skip' && (l.section ?? '') === section);
  const there = (section: string): CourseOutline['things'] =>
    outline.things.filter((t) => (t.section ?? '') === section);
  const goes = (id: string): boolean => landings.some((l) => l.action === 'replace' && l.there === id);
</script>

<aside class="border-hair bg-surface self-start border" aria-label="Sections of the destination">
  <h2 class="border-hair border-b px-4 py-2 text-[14px]">The course, as it will be</h2>
  {#each blocks as b (b.id)}
    <section
      class="border-hair border-b px-4 py-2 last:border-0 {over === b.id ? 'bg-wash' : ''}"
      aria-label={b.name}
      ondragover={(e) => {
        if (!e.dataTransfer?.types.includes('text/x-thing')) return;
        e.preventDefault();
        over = b.id;
      }}
      ondragleave={() => (over = null)}
      ondrop={(e) => {
        const landing = e.dataTransfer?.getData('text/x-thing');
        over = null;
        if (!landing) return;
        e.preventDefault();
        ondrop(b.id || null, landing);
      }}
    >
      <h3 class="text-quiet text-[12.5px]" dir="auto">{b.name}</h3>
      <ul>
        {#each there(b.id) as t (t.id)}<li
            class="truncate text-[13.5px] {goes(t.id) ? 'line-through' : ''}"
            dir="auto"
          >
            {t.title || 'without a name'}{#if goes(t.id)}<span class="sr-only"> (is hidden)</span>{/if}
          </li>{/each}
        {#each coming(b.id) as l (landingId(l))}<li
            class="text-saddle truncate text-[13.5px] font-semibold"
            dir="auto"
          >
            {l.name}
          </li>{/each}
      </ul>
    </section>
  {/each}
  <p class="text-quiet px-4 py-2 text-[12.5px]">
    <span class="text-saddle font-semibold">Brown</span> is what lands. Drag a row of the list into a section, or
    choose it there.
  </p>
</aside>
