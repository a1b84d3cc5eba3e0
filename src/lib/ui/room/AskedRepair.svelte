<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { RoomFinding } from '$lib/shared/room';
  import AskedKey from './AskedKey.svelte';
  import type { Changes } from './changes.svelte';

  /** What only a person can put right: what a picture shows, which picture is meant, which answer is right. */
  interface Props {
    of: RoomFinding;
    files: readonly { readonly path: string }[];
    changes: Changes;
  }
  let { of, files, changes }: Props = $props();
  const found = $derived(of.spoken);
  const seq = $derived(of.item);
  const node = $derived(found.where.node);
  /** The finding names the file alone. */
  const path = $derived.by(() => {
    if (found.code !== 'image-alt-missing') return undefined;
    const { file } = found.params;
    return files.find((f) => f.path.split('/').pop() === file)?.path;
  });
  /** Findings that ask what is right; the response that is meant, where it says so. */
  const keyless = $derived.by((): { response: string | null } | null => {
    if (found.code === 'key-missing') return { response: null };
    const named = found.code === 'blank-unanswered' || found.code === 'key-unknown-choice';
    return named && of.repair === null ? { response: found.params.response } : null;
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
{:else if keyless && seq !== null}
  {#key seq}<AskedKey packageId={changes.packageId} {seq} response={keyless.response} {changes} />{/key}
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
