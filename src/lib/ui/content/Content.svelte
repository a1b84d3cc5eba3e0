<script lang="ts">
  import { hasTex, isActive, isHarmless, mathMarkup, type ContentNode } from '@alforja/core';
  import Self from './Content.svelte';
  import Interaction from './Interaction.svelte';
  import Maths from './Maths.svelte';
  import GapSlot from './GapSlot.svelte';
  import { fileAddress, type Showing } from './answers.svelte';

  interface Props {
    nodes: readonly ContentNode[];
    show: Showing;
  }
  let { nodes, show }: Props = $props();

  const VOID = new Set(['br', 'hr', 'img', 'col', 'source', 'track', 'wbr']);
  const remote = (address: string): boolean => isHarmless(address) || address.startsWith('//');

  /** Attributes for the page: package files get their address, links never leave on their own. */
  function shown(name: string, attrs: Readonly<Record<string, string>>): Record<string, string> {
    const out: Record<string, string> = {};
    for (const [key, value] of Object.entries(attrs)) {
      if (key === 'id' || key === 'class' || key === 'name' || key === 'role') continue;
      out[key] = key === 'src' || key === 'poster' ? fileAddress(show.files, value) : value;
    }
    if (name === 'a') {
      const href = attrs['href'] ?? '';
      return {
        ...out,
        rel: 'noopener noreferrer',
        target: '_blank',
        ...(isActive(href) ? {} : { href: remote(href) ? href : fileAddress(show.files, href) }),
      };
    }
    if (name === 'img') out['alt'] ??= '';
    // Without its controls a recording takes no room and cannot be played.
    if (name === 'audio' || name === 'video') out['controls'] = '';
    return out;
  }
</script>

{#each nodes as node, at (at)}
  {#if node.kind === 'text'}{#if hasTex(node.text)}<Maths text={node.text} />{:else}{node.text}{/if}
  {:else if node.kind === 'element'}
    {#if node.name === 'img' && remote(node.attrs['src'] ?? '')}
      <span class="text-quiet font-sans text-[13px]">[picture on another server: {node.attrs['src']}]</span>
    {:else if VOID.has(node.name)}
      <svelte:element this={node.name} {...shown(node.name, node.attrs)} />
    {:else if node.name === 'table'}
      <!-- A wide table scrolls in a box of its own, which the keyboard can reach. -->
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <div class="overflow-x-auto" role="region" aria-label="Table" tabindex="0">
        <table {...shown('table', node.attrs)}><Self nodes={node.children} {show} /></table>
      </div>
    {:else}
      <svelte:element this={node.name} {...shown(node.name, node.attrs)}
        ><Self nodes={node.children} {show} /></svelte:element
      >
    {/if}
  {:else if node.kind === 'math'}
    <!-- Allowed elements and attributes only, all text escaped: mathMarkup writes nothing else. -->
    <!-- In an element of HTML, so that the page reads it as HTML reads formulas. -->
    <!-- eslint-disable svelte/no-at-html-tags -->
    <span class="formula" class:display={node.attrs['display'] === 'block'}>{@html mathMarkup(node)}</span>
    <!-- eslint-enable svelte/no-at-html-tags -->
  {:else if node.kind === 'feedback'}
    <div class="border-hair text-quiet my-2 border-l-2 pl-3">
      <span class="font-sans text-[12px]">feedback: </span><Self nodes={node.children} {show} />
    </div>
  {:else if node.kind === 'rubricBlock'}
    <div class="border-hair text-quiet my-2 border-l-2 pl-3 text-[15px]">
      <Self nodes={node.children} {show} />
    </div>
  {:else if node.kind === 'template'}
    {#if node.block}
      <div class="border-hair my-2 border-l-2 border-dashed pl-3">
        <span class="text-quiet font-sans text-[12px]"
          >only while {node.template} is {node.show ? '' : 'not '}{node.identifier}:
        </span>
        <Self nodes={node.children} {show} />
      </div>
    {:else}<span class="border-hair border-b border-dashed"><Self nodes={node.children} {show} /></span>{/if}
  {:else if node.kind === 'infoControl'}
    <details class="my-2">
      <summary class="font-sans text-[14px]">{node.title || 'More'}</summary><Self
        nodes={node.children}
        {show}
      />
    </details>
  {:else if node.kind === 'printedVariable'}<b title="Drawn anew for every candidate"
      >{show.printed[node.id] ?? `[${node.id}]`}</b
    >
  {:else if node.kind === 'gap'}<GapSlot id={node.id} />
  {:else if node.kind === 'hottextChoice'}<span class="font-semibold"
      ><Self nodes={node.content} {show} /></span
    >
  {:else if node.kind === 'opaque'}
    <details class="border-ochre my-2 border-l-2 pl-3 font-sans text-[13px]">
      <summary>{node.name}: kept as it stands, not shown.</summary>
      <pre class="bg-paper mt-1 max-h-60 overflow-auto p-2 text-[12px]" tabindex="-1">{node.xml}</pre>
    </details>
  {:else}
    <Interaction {node} {show} />
  {/if}
{/each}
