<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    title: string;
    /** What the browser's tab says, where it is not the title. */
    tab?: string;
    /** Where it belongs. */
    back?: { readonly href: string; readonly name: string };
    /** What it is and where it comes from, beside where it belongs. */
    origin?: Snippet;
    /** In the place of the title, where that can be changed. */
    heading?: Snippet;
    /** A few words beside the title. */
    aside?: Snippet;
    /** What can be done with the whole page, at the right of its title. */
    actions?: Snippet;
    children: Snippet;
  }
  let { title, tab = title, back, origin, heading, aside, actions, children }: Props = $props();
</script>

<!-- The one frame of pages: its width, its head, its distances. -->
<svelte:head><title>{tab} · Alforja</title></svelte:head>
<div class="mx-auto w-full max-w-[1280px] px-(--gutter) pt-4 pb-10">
  {#if back}<p class="text-quiet -mt-1 text-[13px]">
      <a class="act inline-flex min-h-6 items-center" href={back.href}>{back.name}</a>{@render origin?.()}
    </p>{/if}
  <div class="mb-4 flex min-h-9 flex-wrap items-center gap-x-4 gap-y-2">
    {#if heading}{@render heading()}{:else}<h1 class="page-title" dir="auto">{title}</h1>{/if}
    {#if aside}<div class="text-quiet min-w-0">{@render aside()}</div>{/if}
    {#if actions}<div class="ml-auto flex flex-wrap items-center gap-2 max-md:ml-0">
        {@render actions()}
      </div>{/if}
  </div>
  {@render children()}
</div>
