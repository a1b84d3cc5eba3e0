<script lang="ts">
  /** A cell while it is typed in: Enter and Tab keep it, Ctrl Enter keeps it in every marked cell, Esc leaves it. */
  let {
    text,
    label,
    onkeep,
    onleave,
  }: {
    text: string;
    label: string;
    onkeep: (text: string, then: 'stay' | 'down' | 'right' | 'all') => void;
    onleave: () => void;
  } = $props();
  // svelte-ignore state_referenced_locally
  let now = $state(text);
  let done = false;
  function keep(then: 'stay' | 'down' | 'right' | 'all'): void {
    if (done) return;
    done = true;
    onkeep(now, then);
  }
  function press(event: KeyboardEvent): void {
    event.stopPropagation();
    if (event.isComposing) return;
    if (event.key === 'Escape') {
      done = true;
      onleave();
    } else if (event.key === 'Enter' && !event.shiftKey)
      keep(event.ctrlKey || event.metaKey ? 'all' : 'down');
    else if (event.key === 'Tab') keep('right');
    else return;
    event.preventDefault();
  }
  function open(box: HTMLTextAreaElement): void {
    box.focus();
    box.setSelectionRange(now.length, now.length);
    fit(box);
  }
  function fit(box: HTMLTextAreaElement): void {
    box.style.height = 'auto';
    box.style.height = `${Math.min(220, Math.max(32, box.scrollHeight + 2))}px`;
  }
</script>

<textarea
  use:open
  aria-label={label}
  bind:value={now}
  rows="1"
  dir="auto"
  class="bg-surface border-agave absolute top-0 left-0 z-4 min-h-8 w-full min-w-[120px] border-2 px-1.5 py-1 text-[14px]/5"
  onkeydown={press}
  onmousedown={(e) => e.stopPropagation()}
  oninput={(e) => fit(e.currentTarget)}
  onblur={() => keep('stay')}></textarea>

<style>
  textarea {
    resize: none;
  }
</style>
