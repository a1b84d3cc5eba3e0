<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { SpokenFinding } from '@alforja/core';
  import type { Changes } from './changes.svelte';

  /** What only a person can put right: what a picture shows, or which picture is meant. */
  let {
    found,
    files,
    changes,
  }: { found: SpokenFinding; files: readonly { readonly path: string }[]; changes: Changes } = $props();
  const node = $derived(found.where.node);
  /** The finding names the file alone. */
  const path = $derived.by(() => {
    if (found.code !== 'image-alt-missing') return undefined;
    const { file } = found.params;
    return files.find((f) => f.path.split('/').pop() === file)?.path;
  });
  let alt = $state('');
  let trouble = $state('');
  function describe(event: SubmitEvent): void {
    event.preventDefault();
    if (path === undefined || node === null || alt.trim() === '') return;
    void changes.make('repair', [{ op: 'alt', node, path, to: alt.trim() }]);
  }
  async function choose(files: FileList | null): Promise<void> {
    const file = files?.[0];
    if (!file || found.code !== 'file-missing' || node === null) return;
    trouble = '';
    try {
      const { fileInPlace } = await import('../change/pictures');
      await changes.make('repair', [await fileInPlace(file, node, found.params.path)]);
    } catch (error) {
      trouble = (error as Error).message;
    }
  }
</script>

{#if node !== null && path !== undefined}
  <form class="mt-1 ml-3.5 flex flex-wrap items-center gap-2" onsubmit={describe} data-testid="asked">
    <input
      class="border-hair bg-surface text-ink h-8 min-w-[220px] grow rounded border px-2 text-[13.5px]"
      aria-label="What the picture shows"
      placeholder="What the picture shows…"
      dir="auto"
      maxlength="1000"
      bind:value={alt}
    />
    <Button type="submit" size="xs" color="alternative" disabled={changes.busy || alt.trim() === ''}
      >Put right</Button
    >
  </form>
{:else if node !== null && found.code === 'file-missing'}
  <p class="mt-1 ml-3.5 text-[13.5px]" data-testid="asked">
    <label class="act inline-flex min-h-6 cursor-pointer items-center"
      >Choose the file…<input
        type="file"
        accept="image/*"
        class="sr-only"
        disabled={changes.busy}
        onchange={(e) => {
          void choose(e.currentTarget.files);
          e.currentTarget.value = '';
        }}
      /></label
    >
    {#if trouble}<span class="text-brick" role="alert">{trouble}</span>{/if}
  </p>
{/if}
