<script lang="ts">
  import { pointsOf, pointsText, setCriterion, setLevel, type Cell } from '@alforja/core/edit';
  import type { Rubric } from '@alforja/core';

  interface Props {
    rubric: Rubric;
    cell: Cell;
    /** What was typed to begin with; null keeps what is there. */
    typed: string | null;
    onkeep: (next: Rubric, then: 'stay' | 'down' | 'right') => void;
    oncancel: () => void;
  }
  let { rubric, cell, typed, onkeep, oncancel }: Props = $props();
  // svelte-ignore state_referenced_locally
  const criterion = rubric.criteria[cell.row]!;
  // svelte-ignore state_referenced_locally
  const level = criterion.levels[cell.col - 1];
  // svelte-ignore state_referenced_locally
  const isLevel = cell.col > 0;
  // svelte-ignore state_referenced_locally
  let title = $state(typed ?? (isLevel ? (level?.title ?? '') : criterion.title));
  let points = $state(
    isLevel ? pointsText(level?.points ?? null) : criterion.weight === null ? '' : String(criterion.weight),
  );
  let description = $state(isLevel ? (level?.description ?? '') : criterion.description);
  let feedback = $state(level?.feedback ?? '');
  let form = $state<HTMLElement>();
  let over = false;
  const readable = $derived.by(() => {
    let ok = true;
    const read = pointsOf(points, () => (ok = false));
    return ok && (isLevel || read === null || read.low === read.high) ? { read } : null;
  });

  /** Nothing that cannot be read is kept; the field says so and the cell stays open. */
  function keep(then: 'stay' | 'down' | 'right'): boolean {
    if (!readable || over) return false;
    over = true;
    const change = isLevel
      ? setLevel(rubric, cell, {
          title: title.trim(),
          points: readable.read,
          description: description.trim(),
          feedback: feedback.trim(),
        })
      : setCriterion(rubric, cell.row, {
          title: title.trim(),
          description: description.trim(),
          weight: readable.read?.high ?? null,
        });
    const same = JSON.stringify(change) === JSON.stringify(rubric);
    onkeep(same ? rubric : change, then);
    return true;
  }

  /**
   * The focus goes in before the next key is pressed: the attribute alone leaves it in the cell, and what is
   * typed after the first letter would be lost.
   */
  function focusIn(field: HTMLInputElement): void {
    field.focus();
    if (typed === null) field.select();
    else field.setSelectionRange(field.value.length, field.value.length);
  }

  function keys(event: KeyboardEvent): void {
    event.stopPropagation();
    const inText = (event.target as HTMLElement).tagName === 'TEXTAREA';
    if (event.key === 'Escape') {
      over = true;
      oncancel();
    } else if (event.key === 'Enter' && (!inText || event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      keep('down');
    } else if (event.key === 'Tab' && !event.shiftKey) {
      const fields = [...form!.querySelectorAll('input, textarea')];
      if (fields.at(-1) === event.target && keep('right')) event.preventDefault();
    }
  }
  const box = 'border-hair bg-paper text-ink w-full rounded border px-1.5 py-1 text-[13.5px]';
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
  bind:this={form}
  class="grid min-w-[150px] gap-1"
  onkeydown={keys}
  onfocusout={(e) => {
    if (!form?.contains(e.relatedTarget as Node | null)) keep('stay');
  }}
  oncopy={(e) => e.stopPropagation()}
  oncut={(e) => e.stopPropagation()}
  onpaste={(e) => e.stopPropagation()}
>
  <input
    use:focusIn
    class={box}
    dir="auto"
    aria-label={isLevel ? 'Name of the level' : 'Criterion'}
    placeholder={isLevel ? 'Level' : 'Criterion'}
    maxlength="2000"
    bind:value={title}
  />
  <input
    class="{box} num"
    aria-label={isLevel ? 'Points' : 'Weight'}
    aria-invalid={!readable}
    placeholder={isLevel ? 'Points, or “4 to 5”' : 'Weight'}
    bind:value={points}
  />
  {#if !readable}<span class="text-brick text-[12.5px]" role="alert"
      >{isLevel ? 'A number, or a range such as “4 to 5”.' : 'A number.'}</span
    >{/if}
  <textarea
    class={box}
    rows="4"
    dir="auto"
    aria-label={isLevel ? 'Description of the level' : 'Description of the criterion'}
    placeholder="Description"
    bind:value={description}></textarea>
  {#if isLevel}<textarea
      class={box}
      rows="1"
      dir="auto"
      aria-label="Feedback"
      placeholder="Feedback to students"
      bind:value={feedback}></textarea>{/if}
</div>
