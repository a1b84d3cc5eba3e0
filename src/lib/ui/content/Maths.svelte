<script lang="ts" module>
  const LATEX = /\\\((.+?)\\\)|\\\[(.+?)\\\]|\$\$(.+?)\$\$/gsu;

  interface Piece {
    readonly text: string;
    readonly formula: boolean;
    readonly display: boolean;
  }

  /** Text cut into words and formulas. */
  export function pieces(text: string): Piece[] {
    const out: Piece[] = [];
    let at = 0;
    for (const match of text.matchAll(LATEX)) {
      if (match.index > at) out.push({ text: text.slice(at, match.index), formula: false, display: false });
      out.push({
        text: match[1] ?? match[2] ?? match[3] ?? '',
        formula: true,
        display: match[1] === undefined,
      });
      at = match.index + match[0].length;
    }
    if (at < text.length) out.push({ text: text.slice(at), formula: false, display: false });
    return out;
  }
</script>

<script lang="ts">
  import temml from 'temml';

  let { text }: { text: string } = $props();
  /** Makes MathML of LaTeX; nothing in it is trusted, and what it cannot read shows as it was typed. */
  const mathml = (tex: string, display: boolean): string =>
    temml.renderToString(tex, {
      displayMode: display,
      throwOnError: false,
      trust: false,
      maxExpand: 200,
      maxSize: [20, 200],
    });
</script>

<!-- What Temml makes is MathML and nothing else: nothing in the formula is trusted, and all text is escaped. -->
<!-- eslint-disable svelte/no-at-html-tags -->
{#each pieces(text) as piece, at (at)}{#if piece.formula}{@html mathml(
      piece.text,
      piece.display,
    )}{:else}{piece.text}{/if}{/each}
