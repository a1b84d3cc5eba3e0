<script lang="ts">
  import { optionSets, optionText, type Interaction } from '@alforja/core';
  import Content from './Content.svelte';
  import Choices from './Choices.svelte';
  import GapText from './GapText.svelte';
  import Hottext from './Hottext.svelte';
  import Order from './Order.svelte';
  import Pairs from './Pairs.svelte';
  import PictureAnswer from './PictureAnswer.svelte';
  import Drawing from './Drawing.svelte';
  import type { Showing } from './answers.svelte';

  let { node, show }: { node: Interaction; show: Showing } = $props();
  const live = $derived(show.sheet?.live ?? false);
  const given = $derived(node.responseId ? (show.sheet?.of(node.responseId) ?? []) : []);
  const options = $derived(optionSets(node)[0] ?? []);
</script>

{#if node.kind === 'choice'}
  <Choices interaction={node} {show} />
{:else if node.kind === 'textEntry'}
  <input
    type="text"
    class="border-quiet bg-surface mx-1 rounded border px-2 py-0.5 text-[15px] disabled:opacity-100"
    style="width: {Math.min(28, Math.max(6, (node.expectedLength ?? 9) + 2))}ch"
    aria-label="Your answer"
    placeholder={node.placeholder ?? ''}
    defaultValue={String(given[0] ?? '')}
    disabled={!live}
    oninput={(e) =>
      show.sheet?.type(node.responseId, e.currentTarget.value, show.numeric.has(node.responseId))}
  />
{:else if node.kind === 'inlineChoice'}
  <select
    aria-label="Your answer"
    class="border-quiet bg-surface text-ink mx-1 rounded border py-0.5 text-[15px] disabled:opacity-100"
    disabled={!live}
    value={String(given[0] ?? '')}
    onchange={(e) =>
      show.sheet?.set(node.responseId, e.currentTarget.value === '' ? [] : [e.currentTarget.value])}
  >
    <option value="">choose</option>
    {#each options as option, n (n)}<option value={option.id}>{optionText(option)}</option>{/each}
  </select>
  {#if !live}<span class="text-quiet font-sans text-[13px]">({options.map(optionText).join(' / ')})</span
    >{/if}
{:else if node.kind === 'extendedText'}
  <Content nodes={node.prompt} {show} />
  <textarea
    rows={Math.min(10, node.expectedLines ?? 5)}
    class="border-quiet bg-surface mt-2 w-full rounded border px-2 py-1 text-[15px]"
    aria-label="Your answer"
    defaultValue={String(given[0] ?? '')}
    disabled={!live}
    oninput={(e) => show.sheet?.type(node.responseId, e.currentTarget.value, false)}></textarea>
{:else if node.kind === 'order'}
  <Order interaction={node} {show} />
{:else if node.kind === 'match' || node.kind === 'associate'}
  <Pairs interaction={node} {show} />
{:else if node.kind === 'gapMatch'}
  <GapText interaction={node} {show} />
{:else if node.kind === 'hottext'}
  <Hottext interaction={node} {show} />
{:else if node.kind === 'hotspot' || node.kind === 'graphicOrder' || node.kind === 'graphicAssociate' || node.kind === 'graphicGapMatch' || node.kind === 'selectPoint' || node.kind === 'positionObject'}
  <PictureAnswer interaction={node} {show} />
{:else if node.kind === 'slider'}
  <fieldset class="mt-3">
    <legend class="mb-1"><Content nodes={node.prompt} {show} /></legend>
    <div class="flex items-center gap-3 font-sans text-[14px]">
      <span class="num text-quiet">{node.lowerBound}</span>
      <input
        type="range"
        aria-label="Your answer"
        class="accent-agave grow"
        min={node.lowerBound}
        max={node.upperBound}
        step={node.step ?? 1}
        disabled={!live}
        value={Number(given[0] ?? node.lowerBound)}
        oninput={(e) => show.sheet?.set(node.responseId, [Number(e.currentTarget.value)])}
      />
      <span class="num text-quiet">{node.upperBound}</span>
      <output class="num w-14 text-right font-semibold">{given[0] ?? ''}</output>
    </div>
  </fieldset>
{:else if node.kind === 'upload'}
  <Content nodes={node.prompt} {show} />
  <label class="mt-2 block font-sans text-[14px]"
    >A file{node.type ? ` of type ${node.type}` : ''}:
    <input
      type="file"
      disabled={!live}
      onchange={(e) => show.sheet?.set(node.responseId, e.currentTarget.files?.length ? ['file'] : [])}
    /></label
  >
{:else if node.kind === 'drawing'}
  <Drawing interaction={node} {show} />
{:else if node.kind === 'media'}
  <Content nodes={node.prompt} {show} />
  <div class="mt-2"><Content nodes={node.media} {show} /></div>
  <p class="mt-1 font-sans text-[13.5px]">
    <button
      type="button"
      class="act disabled:text-quiet"
      disabled={!live}
      onclick={() => show.sheet?.set(node.responseId, [Number(given[0] ?? 0) + 1])}>Played once more</button
    >
    <span class="text-quiet"
      >{given[0] ?? 0} times{node.maxPlays > 0 ? `, at most ${node.maxPlays}` : ''}</span
    >
  </p>
{:else if node.kind === 'endAttempt'}
  <button
    type="button"
    aria-pressed={given[0] === true}
    disabled={!live}
    class="border-hair aria-pressed:bg-band rounded border px-3 py-1 font-sans text-[14px]"
    onclick={() => show.sheet?.set(node.responseId, given[0] === true ? [] : [true])}
    >{node.title || 'End the attempt'}</button
  >
{:else if node.kind === 'custom'}
  <Content nodes={node.fallback} {show} />
  <details class="border-ochre my-2 border-l-2 pl-3 font-sans text-[13px]">
    <summary
      >A kind of question that only its own system runs: {node.name}. It is kept as it stands and cannot be
      answered here.</summary
    >
    <pre class="bg-paper mt-1 max-h-60 overflow-auto p-2 text-[12px]" tabindex="-1">{node.xml}</pre>
  </details>
{/if}
