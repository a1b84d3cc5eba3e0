<script lang="ts">
  import {
    optionText,
    type GraphicAssociateInteraction,
    type GraphicGapMatchInteraction,
    type Hotspot,
    type HotspotInteraction,
    type PositionObjectInteraction,
    type SelectPointInteraction,
  } from '@alforja/core';
  import Content from './Content.svelte';
  import PairList from './PairList.svelte';
  import { fileAddress, type Showing } from './answers.svelte';
  import { outlineOf } from './areas';

  interface Props {
    interaction:
      | HotspotInteraction
      | GraphicAssociateInteraction
      | GraphicGapMatchInteraction
      | SelectPointInteraction
      | PositionObjectInteraction;
    show: Showing;
  }
  let { interaction, show }: Props = $props();
  const live = $derived(show.sheet?.live ?? false);
  const picture = $derived(interaction.kind === 'positionObject' ? interaction.stage : interaction.picture);
  const width = $derived(picture.width ?? 480);
  const height = $derived(picture.height ?? 300);
  const spots = $derived('hotspots' in interaction ? interaction.hotspots : []);
  const given = $derived((show.sheet?.of(interaction.responseId) ?? []).map(String));
  const single = $derived(!show.several.has(interaction.responseId));
  const points = $derived(
    given.map((v) => v.split(' ').map(Number)).filter((p): p is [number, number] => p.length === 2),
  );
  const pointing = $derived(interaction.kind === 'selectPoint' || interaction.kind === 'positionObject');
  const name = (spot: Hotspot, at: number): string => spot.label || `Area ${at + 1}`;
  const place = (id: string): number => given.indexOf(id);
  const filled = (spot: string): string =>
    given.map((v) => v.split(' ')).find(([, b]) => b === spot)?.[0] ?? '';

  function pick(id: string): void {
    if (!live) return;
    if (interaction.kind === 'hotspot') show.sheet?.toggle(interaction.responseId, id, single);
    else if (interaction.kind === 'graphicOrder')
      show.sheet?.set(
        interaction.responseId,
        given.includes(id) ? given.filter((g) => g !== id) : [...given, id],
      );
  }
  function point(event: MouseEvent & { currentTarget: SVGSVGElement }): void {
    if (!live || !pointing) return;
    const box = event.currentTarget.getBoundingClientRect();
    const x = Math.round(((event.clientX - box.left) * width) / box.width);
    const y = Math.round(((event.clientY - box.top) * height) / box.height);
    show.sheet?.set(interaction.responseId, single ? [`${x} ${y}`] : [...given, `${x} ${y}`]);
  }
  function coordinate(axis: 0 | 1, value: number): void {
    const [x, y] = points[0] ?? [0, 0];
    show.sheet?.set(interaction.responseId, [axis === 0 ? `${value} ${y}` : `${x} ${value}`]);
  }
</script>

<fieldset class="mt-3">
  <legend class="mb-1"><Content nodes={interaction.prompt} {show} /></legend>
  <div class="relative inline-block max-w-full">
    <img src={fileAddress(show.files, picture.src)} alt={picture.alt} {width} {height} />
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
    <svg
      viewBox="0 0 {width} {height}"
      class="absolute inset-0 h-full w-full {live ? 'cursor-pointer' : ''}"
      aria-hidden="true"
      onclick={point}
    >
      {#each spots as spot, at (at)}
        {@const chosen = given.includes(spot.id) || (!live && show.keyed.has(spot.id))}
        {@const area = outlineOf(spot, width, height)}
        <path
          d={area.path}
          fill={chosen ? 'var(--saddle)' : 'transparent'}
          fill-opacity="0.35"
          stroke="var(--saddle)"
          stroke-width="2"
          onclick={() => pick(spot.id)}
        />
        <text
          x={area.x}
          y={area.y}
          text-anchor="middle"
          dominant-baseline="middle"
          font-size="13"
          font-weight="700"
          fill="#23262b"
          paint-order="stroke"
          stroke="#fff"
          stroke-width="3"
          >{interaction.kind === 'graphicOrder' && place(spot.id) >= 0
            ? place(spot.id) + 1
            : String.fromCharCode(65 + at)}</text
        >
      {/each}
      {#each points as [x, y], at (at)}
        <path d="M{x - 8} {y}H{x + 8}M{x} {y - 8}V{y + 8}" stroke="#a33b2e" stroke-width="2.5" fill="none" />
      {/each}
    </svg>
  </div>
  <div class="mt-2 font-sans text-[14px]">
    {#if interaction.kind === 'hotspot' || interaction.kind === 'graphicOrder'}
      <div class="flex flex-wrap gap-2" role="group" aria-label="Areas of the picture">
        {#each spots as spot, at (at)}
          <button
            type="button"
            aria-pressed={given.includes(spot.id)}
            disabled={!live}
            class="border-hair aria-pressed:bg-band aria-pressed:border-saddle rounded border px-2 py-0.5"
            onclick={() => pick(spot.id)}
            >{String.fromCharCode(65 + at)}: {name(spot, at)}{place(spot.id) >= 0 &&
            interaction.kind === 'graphicOrder'
              ? `, ${place(spot.id) + 1}.`
              : ''}{show.keyed.has(spot.id) && !live ? ' (key)' : ''}</button
          >
        {/each}
      </div>
    {:else if interaction.kind === 'graphicAssociate'}
      <PairList
        options={spots.map((s, at) => ({
          id: s.id,
          text: `${String.fromCharCode(65 + at)}: ${name(s, at)}`,
        }))}
        response={interaction.responseId}
        most={interaction.maxAssociations}
        {show}
      />
    {:else if interaction.kind === 'graphicGapMatch'}
      <ul class="list-none! p-0!">
        {#each spots as spot, at (at)}
          <li class="flex items-center gap-2 py-0.5">
            <span class="w-32">{String.fromCharCode(65 + at)}: {name(spot, at)}</span>
            <select
              aria-label="At {name(spot, at)}"
              disabled={!live}
              value={filled(spot.id)}
              onchange={(e) =>
                show.sheet?.pair(interaction.responseId, spot.id, e.currentTarget.value, 'right')}
              class="border-quiet bg-surface text-ink rounded border py-0.5 disabled:opacity-100"
            >
              <option value="">choose</option>
              {#each interaction.choices as c, n (n)}<option value={c.id}
                  >{optionText({ ...c, label: '' })}</option
                >{/each}
            </select>
          </li>
        {/each}
      </ul>
      {#if !live}<p class="text-quiet">
          {interaction.choices.map((c) => optionText({ ...c, label: '' })).join(' / ')}
        </p>{/if}
    {:else}
      <div class="flex items-center gap-2">
        {#each [0, 1] as const as axis (axis)}
          <label class="flex items-center gap-1"
            >{axis === 0 ? 'across' : 'down'}
            <input
              type="number"
              min="0"
              max={axis === 0 ? width : height}
              disabled={!live}
              value={points[0]?.[axis] ?? ''}
              oninput={(e) => coordinate(axis, Number(e.currentTarget.value))}
              class="border-quiet bg-surface text-ink w-20 rounded border py-0.5"
            /></label
          >
        {/each}
        <span class="text-quiet">or click in the picture</span>
      </div>
    {/if}
  </div>
</fieldset>
