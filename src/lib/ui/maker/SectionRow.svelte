<script lang="ts">
  import ArrowDown from '@lucide/svelte/icons/arrow-down';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import GripVertical from '@lucide/svelte/icons/grip-vertical';
  import X from '@lucide/svelte/icons/x';
  import KindIcon from '../KindIcon.svelte';
  import type { Maker, Shown } from './maker.svelte';
  import { dragged, dropped } from './shelf.svelte';

  interface Props {
    maker: Maker;
    section: string;
    row: Shown;
    /** Its place in its section, from 0, and how many there are. */
    at: number;
    of: number;
    number: number;
    look: () => void;
    drop: (at: number) => void;
  }
  let { maker, section, row, at, of, number, look, drop }: Props = $props();
  const move = (to: number): void => {
    if (to < 0 || to >= of) return;
    maker.do({ do: 'move', key: row.key, section, at: to });
    maker.said = `Moved to place ${to + 1}.`;
  };
  const remove = (): void => {
    maker.do({ do: 'remove', keys: [row.key] });
    maker.said = 'Taken out.';
  };
  function press(event: KeyboardEvent): void {
    if (event.altKey && event.key === 'ArrowUp') move(at - 1);
    else if (event.altKey && event.key === 'ArrowDown') move(at + 1);
    else if (event.key === 'Delete') remove();
    else if (event.key === 'v' && !event.ctrlKey && !event.metaKey) look();
    else return;
    event.preventDefault();
  }
  function worth(text: string): void {
    const to = text.trim() === '' ? null : Number(text);
    if (to !== null && !(Number.isFinite(to) && to >= 0)) return;
    if (to !== row.points) maker.do({ do: 'points', keys: [row.key], to });
  }
  let over = $state(false);
</script>

<li
  class="border-hair flex items-start gap-2 border-b py-1.5 {over ? 'border-t-saddle border-t-2' : ''}"
  ondragover={(e) => {
    e.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={(e) => {
    e.preventDefault();
    e.stopPropagation();
    over = false;
    drop(at);
  }}
>
  <span
    class="text-quiet cursor-grab pt-0.5"
    role="img"
    aria-label="Drag to move"
    draggable="true"
    ondragstart={() => (dragged.key = row.key)}
    ondragend={dropped}><GripVertical size={15} /></span
  >
  <span class="num text-quiet w-5 shrink-0 pt-px text-right text-[12.5px]">{number}</span>
  <span class="shrink-0"><KindIcon kind={row.kind} /></span>
  <button
    type="button"
    class="line-clamp-2 min-h-6 min-w-0 grow text-left font-serif text-[15px] leading-snug hover:underline"
    dir="auto"
    title="Show it as students see it"
    onclick={look}
    onkeydown={press}>{row.name}</button
  >
  <input
    type="number"
    min="0"
    step="any"
    value={row.points}
    aria-label="Points of question {number}"
    onchange={(e) => worth(e.currentTarget.value)}
    class="num border-hair bg-surface text-ink h-7 w-[62px] shrink-0 rounded border px-1.5 text-right text-[13.5px]"
  />
  <span class="flex shrink-0">
    <button
      type="button"
      class="icon-button"
      aria-label="Move question {number} up"
      disabled={at === 0}
      onclick={() => move(at - 1)}><ArrowUp size={14} /></button
    >
    <button
      type="button"
      class="icon-button"
      aria-label="Move question {number} down"
      disabled={at === of - 1}
      onclick={() => move(at + 1)}><ArrowDown size={14} /></button
    >
    <button type="button" class="icon-button" aria-label="Take question {number} out" onclick={remove}
      ><X size={14} /></button
    >
  </span>
</li>
