<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import type { OutlineNode } from '@alforja/core';
  import { countsOf, type RoomView } from '$lib/shared/room';
  import { count } from '../format';
  import { PLACE_NAMES, placeName, placeText, type Place } from './places';

  interface Props {
    packageId: string;
    room: RoomView;
    place: Place;
    go: (place: Place) => void;
  }
  let { packageId, room, place, go }: Props = $props();
  const same = (p: Place): boolean => placeText(p) === placeText(place);
  const images = $derived(room.files.filter((f) => /\.(?:png|jpe?g|gif|webp|svg)$/iu.test(f.path)).length);
  const folders = $derived(room.outline.some((n) => n.children.length > 0));
  const { decide, notes, files, links } = $derived(countsOf(room));
  /** On a narrow screen the places are folded away behind the one that is shown. */
  let unfolded = $state(false);
  const here = $derived(placeName(place, room));
</script>

{#snippet row(target: Place, name: string, n: string, warn = false, edited = false)}
  <li>
    <button
      type="button"
      class="flex w-full items-baseline gap-2 px-(--gutter) py-1 text-left {same(target)
        ? 'bg-band font-semibold'
        : 'hover:bg-band/60'}"
      aria-current={same(target) ? 'true' : undefined}
      onclick={() => {
        unfolded = false;
        go(target);
      }}
    >
      <span class="truncate" dir="auto">{name}</span>{#if edited}<span
          class="text-saddle shrink-0 text-[12px] font-semibold">changed</span
        >{/if}<span class="num ml-auto shrink-0 {warn ? 'text-ochre font-semibold' : 'text-quiet'}">{n}</span>
    </button>
  </li>
{/snippet}

{#snippet folder(nodes: readonly OutlineNode[], depth: number)}
  {#each nodes as node, n (n)}
    <li
      class="text-quiet truncate px-(--gutter) py-0.5"
      style="padding-left: calc(var(--gutter) + {depth * 12}px)"
      dir="auto"
    >
      {node.title || 'Untitled'}
    </li>
    {@render folder(node.children, depth + 1)}
  {/each}
{/snippet}

<button
  type="button"
  class="flex w-full items-center gap-2 px-(--gutter) py-2 text-left font-semibold md:hidden"
  aria-expanded={unfolded}
  aria-controls="outline"
  onclick={() => (unfolded = !unfolded)}
>
  <span class="min-w-0 truncate" dir="auto">{here}</span>
  <ChevronDown size={16} class="ml-auto shrink-0 {unfolded ? 'rotate-180' : ''}" aria-hidden="true" />
</button>
<nav
  id="outline"
  aria-label="Contents of the package"
  class="flex flex-col gap-3.5 py-4 text-[13.5px] {unfolded ? '' : 'max-md:hidden'}"
>
  <ul>
    {@render row({ kind: 'all' }, PLACE_NAMES.all, count(room.items))}
    {#if room.items > 0}{@render row({ kind: 'facts' }, PLACE_NAMES.facts, '')}{/if}
    {#if room.families.length > 0}{@render row(
        { kind: 'families' },
        PLACE_NAMES.families,
        count(room.families.length),
      )}{/if}
  </ul>
  {#if room.quizzes.length > 0}
    <div>
      <h2 class="text-quiet px-(--gutter) pb-1 text-[12.5px]">Quizzes</h2>
      <ul>
        {#each room.quizzes as quiz, n (n)}{@render row(
            { kind: 'quiz', id: quiz.id },
            quiz.title,
            count(quiz.count),
            false,
            quiz.edited,
          )}{/each}
      </ul>
    </div>
  {/if}
  {#if room.banks.length > 0}
    <div>
      <h2 class="text-quiet px-(--gutter) pb-1 text-[12.5px]">Banks</h2>
      <ul>
        {#each room.banks as bank, n (n)}{@render row(
            { kind: 'bank', id: bank.id },
            bank.title,
            count(bank.count),
            false,
            bank.edited,
          )}{/each}
      </ul>
    </div>
  {/if}
  {#if room.looseCount > 0}<ul>
      {@render row({ kind: 'loose' }, PLACE_NAMES.loose, count(room.looseCount))}
    </ul>{/if}
  {#if room.rubrics.length > 0}
    <div>
      <h2 class="text-quiet px-(--gutter) pb-1 text-[12.5px]">Rubrics</h2>
      <ul>
        {#each room.rubrics as rubric, n (n)}
          <li>
            <a
              class="hover:bg-band/60 block truncate px-(--gutter) py-1"
              dir="auto"
              href="/rubrics/{packageId}/{encodeURIComponent(rubric.id)}">{rubric.title}</a
            >
          </li>
        {/each}
      </ul>
    </div>
  {/if}
  {#if links > 0}
    <div>
      <h2 class="text-quiet px-(--gutter) pb-1 text-[12.5px]">Links</h2>
      <ul>
        {@render row(
          { kind: 'links' },
          links === 1 ? room.links[0]!.title || 'Link' : 'All links',
          String(links),
        )}
      </ul>
    </div>
  {/if}
  {#if files > 0}
    <div>
      <h2 class="text-quiet px-(--gutter) pb-1 text-[12.5px]">Files</h2>
      <ul>
        {@render row({ kind: 'files' }, images === room.files.length ? 'Images' : 'Files', count(files))}
      </ul>
    </div>
  {/if}
  {#if decide + notes > 0}
    <div>
      <h2 class="text-quiet px-(--gutter) pb-1 text-[12.5px]">Findings</h2>
      <ul>
        {#if decide > 0}{@render row(
            { kind: 'findings', which: 'decide' },
            PLACE_NAMES.decide,
            count(decide),
            true,
          )}{/if}
        {#if notes > 0}{@render row(
            { kind: 'findings', which: 'notes' },
            PLACE_NAMES.notes,
            count(notes),
          )}{/if}
      </ul>
    </div>
  {/if}
  {#if room.leftOut.length > 0}<ul>
      {@render row({ kind: 'left-out' }, PLACE_NAMES['left-out'], count(room.leftOut.length))}
    </ul>{/if}
  {#if folders}
    <div>
      <h2 class="text-quiet px-(--gutter) pb-1 text-[12.5px]">Order in the course</h2>
      <ul>{@render folder(room.outline, 0)}</ul>
    </div>
  {/if}
</nav>
