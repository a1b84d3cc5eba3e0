<script lang="ts">
  import Page from '$lib/ui/shell/Page.svelte';
  import { enhance } from '$app/forms';
  import Button from 'flowbite-svelte/Button.svelte';
  import { when } from '$lib/ui/format';
  import KnownLayouts from '$lib/ui/rules/KnownLayouts.svelte';
  import TakeRules from '$lib/ui/rules/TakeRules.svelte';

  let { data, form } = $props();
  const meanings = { points: 'points', category: 'category', type: 'kind of question' } as const;
</script>

<Page title="Reading rules" back={{ href: '/packages', name: 'Packages' }}>
  {#snippet actions()}
    <TakeRules />
    {#if data.rules.length + data.layouts.length > 0}<a class="act" href="/rules/rules.json" download
        >Download as a file</a
      >{/if}
  {/snippet}
  <p class="text-quiet mb-3 max-w-[760px]">
    What is confirmed once holds for every file of the same origin, or that looks alike: what a private field
    of a package says, how a document or a table is laid out. A change reads those files again; the files stay
    as they are.
  </p>
  {#if form && 'message' in form}<p class="text-brick mb-2" role="alert">{form.message}</p>{/if}
  <h2 class="mt-5 mb-2 text-[15px]">Private fields</h2>
  {#if data.rules.length === 0}
    <p>
      There are none yet. Where a field looks like points or a category, the package’s findings offer to
      confirm it.
    </p>
  {:else}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="overflow-x-auto" role="region" aria-label="Rules of private fields" tabindex="0">
      <table class="border-hair bg-surface w-full border text-left">
        <thead class="text-quiet border-hair border-b text-[12.5px]">
          <tr>
            <th class="px-4 py-2 font-semibold">Field</th>
            <th class="px-3 py-2 font-semibold">Name and meaning</th>
            <th class="px-3 py-2 font-semibold">Origin</th>
            <th class="px-4 py-2 font-semibold">Confirmed</th>
          </tr>
        </thead>
        <tbody>
          {#each data.rules as rule (rule.id)}
            <tr class="border-hair border-b last:border-0">
              <td class="px-4 py-2 font-mono text-[13px]">{rule.label}</td>
              <td class="px-3 py-2">
                <form method="POST" action="?/change" use:enhance class="flex flex-wrap items-center gap-2">
                  <input type="hidden" name="id" value={rule.id} />
                  <input
                    name="name"
                    aria-label="Name of the rule for {rule.label}"
                    value={rule.name}
                    required
                    maxlength="200"
                    class="border-hair bg-surface text-ink h-8 w-[220px] rounded border px-2"
                  />
                  <select
                    name="means"
                    aria-label="What {rule.label} means"
                    value={rule.means}
                    class="border-hair bg-surface text-ink h-8 rounded border py-0 text-[14px]"
                  >
                    {#each Object.entries(meanings) as [key, said] (key)}<option value={key}>{said}</option
                      >{/each}
                  </select>
                  <Button type="submit" color="alternative">Save</Button>
                </form>
              </td>
              <td class="text-quiet max-w-[340px] truncate px-3 py-2 text-[13px]" title={rule.origin}
                >{rule.origin}</td
              >
              <td class="px-4 py-2 whitespace-nowrap">
                <span class="text-quiet">{when(rule.createdAt)}</span>
                <form method="POST" action="?/remove" use:enhance class="inline">
                  <input type="hidden" name="id" value={rule.id} />
                  <button type="submit" class="act ml-3" aria-label="Remove the rule for {rule.label}"
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
  <h2 class="mt-6 mb-2 text-[15px]">Layouts of documents and tables</h2>
  <KnownLayouts layouts={data.layouts} />
</Page>
