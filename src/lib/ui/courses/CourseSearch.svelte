<script lang="ts">
  import Search from '@lucide/svelte/icons/search';

  interface Props {
    label: string;
    value: string;
    onsearch: (query: string) => void;
    autofocus?: boolean;
  }
  let { label, value, onsearch, autofocus = false }: Props = $props();
  const AFTER_MS = 150;
  let timer: ReturnType<typeof setTimeout> | undefined;
  function type(event: Event): void {
    const query = (event.currentTarget as HTMLInputElement).value;
    clearTimeout(timer);
    timer = setTimeout(() => onsearch(query), AFTER_MS);
  }
</script>

<div class="relative">
  <Search size={16} class="text-quiet absolute top-2.5 left-3" aria-hidden="true" />
  <!-- svelte-ignore a11y_autofocus -->
  <input
    type="search"
    aria-label={label}
    placeholder="Title, code, term, section or a person, in any order…"
    {value}
    {autofocus}
    oninput={type}
    class="border-hair bg-surface text-ink placeholder:text-quiet h-9 w-full rounded border pr-3 pl-9 text-[14px]"
  />
</div>
