<script lang="ts">
  import temml from 'temml';
  import { pieces, type Piece } from '@alforja/core';

  let { text }: { text: string } = $props();
  /** MathML of LaTeX; nothing in it is trusted. Null for what cannot be read, which shows as it was typed. */
  function mathml(piece: Piece): string | null {
    try {
      return temml.renderToString(piece.text, {
        displayMode: piece.display,
        throwOnError: true,
        trust: false,
        maxExpand: 200,
        maxSize: [20, 200],
      });
    } catch {
      return null;
    }
  }
  const shown = $derived(
    pieces(text).map((piece) => ({ ...piece, markup: piece.formula ? mathml(piece) : null })),
  );
</script>

<!-- What Temml makes is MathML and nothing else: nothing in the formula is trusted, and all text is escaped. -->
<!-- eslint-disable svelte/no-at-html-tags -->
{#each shown as piece, at (at)}{#if piece.markup !== null}<span class="formula" class:display={piece.display}
      >{@html piece.markup}</span
    >{:else}{piece.typed}{/if}{/each}
