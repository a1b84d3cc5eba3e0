<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import { enhance } from '$app/forms';
  import type { LayoutRow } from '$lib/shared/types';
  import { when } from '../format';

  /** Layouts that were confirmed, to be named otherwise or removed. */
  let { layouts }: { layouts: readonly LayoutRow[] } = $props();
  const OF = { questions: 'questions', rubrics: 'rubrics' } as const;
</script>

{#if layouts.length === 0}
  <p>
    There are none yet. Open a test bank that came as a document, check it against the document, and save its
    layout.
  </p>
{:else}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="overflow-x-auto" role="region" aria-label="Layouts" tabindex="0">
    <table class="border-hair bg-surface w-full border text-left">
      <thead class="text-quiet border-hair border-b text-[12.5px]">
        <tr>
          <th class="px-4 py-2 font-semibold">Name</th>
          <th class="px-3 py-2 font-semibold">Of</th>
          <th class="px-3 py-2 font-semibold">Layout</th>
          <th class="px-4 py-2 font-semibold">Confirmed</th>
        </tr>
      </thead>
      <tbody>
        {#each layouts as layout (layout.id)}
          <tr class="border-hair border-b last:border-0">
            <td class="px-4 py-2">
              <form method="POST" action="?/rename" use:enhance class="flex flex-wrap items-center gap-2">
                <input type="hidden" name="id" value={layout.id} />
                <input
                  name="name"
                  aria-label="Name of the layout {layout.name}"
                  value={layout.name}
                  required
                  maxlength="200"
                  dir="auto"
                  class="border-hair bg-surface text-ink h-8 w-[220px] rounded border px-2"
                />
                <Button type="submit" color="alternative">Save</Button>
              </form>
            </td>
            <td class="px-3 py-2">{OF[layout.kind]}</td>
            <td class="text-quiet max-w-[420px] px-3 py-2 text-[13px]" dir="auto">{layout.says}</td>
            <td class="px-4 py-2 whitespace-nowrap">
              <span class="text-quiet">{when(layout.createdAt)}</span>
              <form method="POST" action="?/forget" use:enhance class="inline">
                <input type="hidden" name="id" value={layout.id} />
                <button type="submit" class="act ml-3" aria-label="Remove the layout {layout.name}"
                  >Remove</button
                >
              </form>
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}
