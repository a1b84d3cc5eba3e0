<script lang="ts">
  import type { RubricSheet } from './sheet.svelte';

  /** Name and purpose of a rubric, changed in their place. */
  let { sheet }: { sheet: RubricSheet } = $props();
  const FIELD =
    'text-ink hover:border-hair focus:border-hair -ml-1 block w-full rounded border border-transparent bg-transparent px-1 py-0.5';
</script>

<div class="min-w-0 max-w-[640px] grow">
  <h1 class="sr-only">{sheet.rubric.title}</h1>
  <input
    aria-label="Name of the rubric"
    dir="auto"
    maxlength="500"
    required
    value={sheet.rubric.title}
    onchange={(e) => {
      const name = e.currentTarget.value.trim();
      if (name) sheet.change({ ...sheet.rubric, title: name });
      else e.currentTarget.value = sheet.rubric.title;
    }}
    class="{FIELD} page-title"
  />
  <textarea
    aria-label="What it is for"
    placeholder="What it is for"
    dir="auto"
    rows="1"
    value={sheet.rubric.description}
    onchange={(e) => sheet.change({ ...sheet.rubric, description: e.currentTarget.value.trim() })}
    class="{FIELD} placeholder:text-quiet resize-none [field-sizing:content] text-[14px]"></textarea>
</div>
