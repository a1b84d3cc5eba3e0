<script lang="ts">
  import { sayKeyPlace, sayShape, type LabelRole, type Layout } from '@alforja/core';
  import type { DocumentShown } from '$lib/shared/documents';
  import ColumnRoles from './ColumnRoles.svelte';
  import { withKey, withLabel, withPart, withPoints } from './layoutParts';
  import { LINE_ROLES } from './words';

  /** How a document is laid out, in words; each part can be set to what occurs in it. */
  let { shown, busy, onlayout }: { shown: DocumentShown; busy: boolean; onlayout: (layout: Layout) => void } =
    $props();
  const layout = $derived(shown.layout);
  const choices = $derived(shown.choices);
  const POINTS: Readonly<Record<string, string>> = { points: '(2 points)', '(': '(2)', '[': '[2]' };
  const sayPoints = (form: string): string => POINTS[form] ?? `(2 ${form.replace(/^[([]/u, '')})`;
</script>

{#snippet pick(
  name: string,
  value: string,
  options: readonly (readonly [string, string])[],
  set: (to: string) => void,
)}
  <label class="flex items-center gap-1.5 whitespace-nowrap"
    ><span class="text-quiet">{name}</span>
    <select class="part" {value} disabled={busy} onchange={(e) => set(e.currentTarget.value)}
      >{#each options as [to, says] (to)}<option value={to}>{says}</option>{/each}</select
    ></label
  >
{/snippet}

<div class="flex flex-wrap items-center gap-x-4 gap-y-1.5 text-[13px]" role="group" aria-label="Layout">
  {#if choices.columns}<ColumnRoles columns={choices.columns} {busy} {onlayout} />
  {:else}
    {@render pick(
      'Questions',
      layout.question,
      choices.question.map((s) => [s, sayShape(s)]),
      (to) => onlayout(withPart(layout, 'question', to)),
    )}
    {@render pick(
      'Choices',
      layout.choice,
      choices.choice.map((s) => [s, sayShape(s)]),
      (to) => onlayout(withPart(layout, 'choice', to)),
    )}
    {@render pick(
      'Key',
      layout.key,
      choices.key.map((s) => [s, sayKeyPlace(s)]),
      (to) => onlayout(withKey(layout, to)),
    )}
    {@render pick(
      'Points',
      layout.points ?? '',
      [...choices.points.map((s): [string, string] => [s, sayPoints(s)]), ['', 'not in the text']],
      (to) => onlayout(withPoints(layout, to === '' ? null : to)),
    )}
    {#each choices.labels as { name, role, values } (name)}
      <label class="flex items-center gap-1.5 whitespace-nowrap" title={values.join(' · ')}
        ><span dir="auto" class="max-w-[160px] truncate">“{name}”</span>
        <select
          class="part"
          aria-label="What “{name}” says"
          value={role}
          disabled={busy}
          onchange={(e) => onlayout(withLabel(layout, name, e.currentTarget.value as LabelRole))}
          >{#each LINE_ROLES as [to, says] (to)}<option value={to}>{says}</option>{/each}</select
        ></label
      >
    {/each}
  {/if}
</div>

<style>
  .part {
    height: 28px;
    max-width: 190px;
    padding: 0 26px 0 8px;
    font-size: 13px;
    border: 1px solid var(--hair);
    border-radius: 4px;
    background-color: var(--surface);
    color: var(--ink);
  }
</style>
