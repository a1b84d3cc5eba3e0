<script lang="ts">
  import Search from '@lucide/svelte/icons/search';
  import { onDestroy, onMount, untrack } from 'svelte';

  interface Props {
    label: string;
    value: string;
    onsearch: (query: string) => void;
    autofocus?: boolean;
  }
  let { label, value, onsearch, autofocus = false }: Props = $props();
  const AFTER_MS = 150;
  let text = $state(untrack(() => value));
  let timer: ReturnType<typeof setTimeout> | undefined;
  let asked: string | null = null;
  let input = $state<HTMLInputElement>();

  function type(): void {
    clearTimeout(timer);
    timer = setTimeout(() => {
      asked = text === value ? null : text;
      onsearch(text);
    }, AFTER_MS);
  }
  /** Drops what was typed a moment ago and has not been asked for yet. */
  export function forget(): void {
    clearTimeout(timer);
  }
  onDestroy(forget);
  // What was typed before the page was up is asked for as well.
  onMount(() => {
    if (text !== value) type();
  });
  $effect(() => {
    // What was asked for comes back later, when more may have been typed; only what came otherwise is shown, and
    // nothing is put in the place of what somebody is typing.
    if (value === asked) asked = null;
    else if (asked === null && document.activeElement !== input) text = value;
  });
</script>

<div class="relative">
  <Search size={16} class="text-quiet absolute top-2.5 left-3" aria-hidden="true" />
  <!-- svelte-ignore a11y_autofocus -->
  <input
    bind:this={input}
    type="search"
    aria-label={label}
    placeholder="Title, code, term, section or a person, in any order…"
    bind:value={text}
    {autofocus}
    oninput={type}
    class="border-hair bg-surface text-ink placeholder:text-quiet h-9 w-full rounded border pr-3 pl-9 text-[14px]"
  />
</div>
