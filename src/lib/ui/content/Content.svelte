<script lang="ts">
  import type { ContentNode } from '@alforja/core';
  import Self from './Content.svelte';
  import Choices from './Choices.svelte';
  import type { AnswerSheet } from './answers.svelte';

  interface Props {
    nodes: readonly ContentNode[];
    /** Where files of the package are served from. */
    files: string;
    sheet?: AnswerSheet | null;
    keyed?: ReadonlySet<string>;
    numeric?: ReadonlySet<string>;
    several?: ReadonlySet<string>;
  }
  let {
    nodes,
    files,
    sheet = null,
    keyed = new Set(),
    numeric = new Set(),
    several = new Set(),
  }: Props = $props();

  const VOID = new Set(['br', 'hr', 'img', 'col', 'source', 'wbr']);
  const remote = (address: string): boolean =>
    /^(?:[a-z]+:|\/\/)/iu.test(address) && !address.startsWith('data:');
  const source = (address: string): string =>
    address.startsWith('data:') ? address : `${files}?path=${encodeURIComponent(address)}`;

  /** Attributes for the page: package files get their address, links never leave on their own. */
  function shown(name: string, attrs: Readonly<Record<string, string>>): Record<string, string> {
    const out: Record<string, string> = {};
    for (const [key, value] of Object.entries(attrs)) {
      if (key === 'id' || key === 'class' || key === 'name' || key === 'role') continue;
      out[key] = key === 'src' || key === 'poster' ? source(value) : value;
    }
    if (name === 'a')
      return {
        ...out,
        rel: 'noopener noreferrer',
        target: '_blank',
        href: remote(out['href'] ?? '') ? out['href']! : source(out['href'] ?? ''),
      };
    if (name === 'img') out['alt'] ??= '';
    return out;
  }
  const passed = $derived({ files, sheet, keyed, numeric, several });
</script>

{#each nodes as node, at (at)}
  {#if node.kind === 'text'}{node.text}
  {:else if node.kind === 'element'}
    {#if node.name === 'img' && remote(node.attrs['src'] ?? '')}
      <span class="text-quiet font-sans text-[13px]">[picture on another server: {node.attrs['src']}]</span>
    {:else if VOID.has(node.name)}
      <svelte:element this={node.name} {...shown(node.name, node.attrs)} />
    {:else if node.name === 'table'}
      <div class="overflow-x-auto">
        <table {...shown('table', node.attrs)}><Self nodes={node.children} {...passed} /></table>
      </div>
    {:else}
      <svelte:element this={node.name} {...shown(node.name, node.attrs)}
        ><Self nodes={node.children} {...passed} /></svelte:element
      >
    {/if}
  {:else if node.kind === 'math'}
    <svelte:element this={"math"} xmlns="http://www.w3.org/1998/Math/MathML" {...node.attrs}>
      <Self nodes={node.children} {...passed} />
    </svelte:element>
  {:else if node.kind === 'choice'}
    <Choices interaction={node} {...passed} />
  {:else if node.kind === 'textEntry'}
    <input
      type="text"
      class="border-quiet bg-surface mx-1 w-[11ch] rounded border px-2 py-0.5 text-[15px] disabled:opacity-100"
      aria-label="Your answer"
      placeholder={node.placeholder ?? ''}
      disabled={!sheet?.live}
      oninput={(e) => sheet?.type(node.responseId, e.currentTarget.value, numeric.has(node.responseId))}
    />
  {:else if node.kind === 'extendedText'}
    <Self nodes={node.prompt} {...passed} />
    <textarea
      rows={Math.min(10, node.expectedLines ?? 5)}
      class="border-quiet bg-surface mt-2 w-full rounded border px-2 py-1 text-[15px]"
      aria-label="Your answer"
      disabled={!sheet?.live}
      oninput={(e) => sheet?.type(node.responseId, e.currentTarget.value, false)}></textarea>
  {:else if node.kind === 'feedback'}
    <div class="border-hair text-quiet my-2 border-l-2 pl-3">
      <span class="font-sans text-[12px]">feedback: </span><Self nodes={node.children} {...passed} />
    </div>
  {:else if node.kind === 'rubricBlock'}
    <div class="border-hair text-quiet my-2 border-l-2 pl-3 text-[15px]">
      <Self nodes={node.children} {...passed} />
    </div>
  {:else}
    <Self nodes={node.kind === 'custom' ? node.fallback : []} {...passed} />
    <details class="border-ochre my-2 border-l-2 pl-3 font-sans text-[13px]">
      <summary>This part is of a kind not shown yet: {node.name}. It is kept as it stands.</summary>
      <pre class="bg-paper mt-1 max-h-60 overflow-auto p-2 text-[12px]" tabindex="-1">{node.xml}</pre>
    </details>
  {/if}
{/each}
