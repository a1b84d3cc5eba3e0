<script lang="ts">
  import type { RubricSides } from '@alforja/core';
  import Button from 'flowbite-svelte/Button.svelte';
  import Effect from './Effect.svelte';
  import SideBySide from './SideBySide.svelte';

  interface Props {
    original: {
      readonly gone: boolean;
      readonly name: string;
      readonly title: string;
      readonly points: number | null;
      readonly changed: boolean;
      readonly sides: RubricSides | null;
    } | null;
    own: { readonly title: string; readonly points: number | null };
    ontake: () => void;
    onindependent: () => void;
  }
  let { original, own, ontake, onindependent }: Props = $props();
</script>

<section class="border-hair bg-surface mb-4 border px-4 py-3" aria-label="How it follows">
  <div class="flex flex-wrap items-center gap-3">
    <p>
      {#if !original || original.gone}What it follows is no longer there; it stays as it was last taken over.
      {:else if original.changed}<b class="text-ochre">The original has changed</b> since it was taken over.
      {:else}It is in step with “{original.title}”, {original.name}.{/if}
    </p>
    <span class="ml-auto flex gap-3">
      {#if original?.changed && !original.gone}<Button color="primary" onclick={ontake}
          >Take the change over</Button
        >{/if}
      <Button color="alternative" onclick={onindependent}>Make it independent</Button>
    </span>
  </div>
  {#if original?.sides}
    {#if original.sides.effect}<div class="mt-2"><Effect effect={original.sides.effect} /></div>{/if}
    <div class="mt-3">
      <SideBySide
        rows={original.sides.rows}
        left={{ ...own, name: 'this one, as it was taken over' }}
        right={{ title: original.title, points: original.points, name: `${original.name}, as it is now` }}
      />
    </div>
  {/if}
</section>
