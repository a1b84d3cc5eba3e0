<script lang="ts">
  import { onMount } from 'svelte';
  import Modal from 'flowbite-svelte/Modal.svelte';
  import type { ItemView } from '$lib/shared/types';
  import Content from '../content/Content.svelte';
  import { typesOf, type Showing } from '../content/answers.svelte';
  import { KIND_NAMES, plural } from '../format';

  /** A question as students see it, with its key. */
  let { packageId, seq, close }: { packageId: string; seq: number; close: () => void } = $props();
  let open = $state(true);
  let view = $state.raw<ItemView | null>(null);
  let trouble = $state('');
  $effect(() => {
    if (!open) close();
  });
  onMount(async () => {
    const response = await fetch(`/api/packages/${packageId}/items/${seq}`).catch(() => null);
    if (response?.ok) view = (await response.json()) as ItemView;
    else trouble = 'The question could not be fetched. Try again.';
  });
  const show = $derived<Showing>({
    files: `/api/packages/${packageId}/file`,
    sheet: null,
    keyed: new Set(view?.keyed),
    printed: view?.printed ?? {},
    ...typesOf(view?.item.responses ?? []),
  });
</script>

<Modal bind:open title="The question as students see it" size="lg">
  {#if trouble}<p class="text-brick" role="alert">{trouble}</p>
  {:else if view}
    {@const { item } = view}
    <p class="text-quiet mb-3 text-[13px]">
      {KIND_NAMES[view.kind] ?? view.kind}, {plural(item.points, 'point')}{item.category
        ? `, ${item.category}`
        : ''}
    </p>
    <div class="item-text" lang={item.language ?? undefined} dir="auto" data-testid="peek">
      {#each item.stimuli as passage, n (n)}<Content nodes={passage.content} {show} />{/each}
      <Content nodes={item.body} {show} />
    </div>
    {#if view.key.length > 0}<p class="mt-3 flex gap-2.5">
        <span class="text-saddle text-[12.5px] font-semibold">key</span>
        <span class="font-serif" dir="auto">{view.key.join('; ')}</span>
      </p>{/if}
    <p class="mt-2">{view.rule}</p>
  {/if}
</Modal>
