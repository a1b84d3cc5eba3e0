<script lang="ts">
  import CircleDot from '@lucide/svelte/icons/circle-dot';
  import SquareCheck from '@lucide/svelte/icons/square-check';
  import TextCursorInput from '@lucide/svelte/icons/text-cursor-input';
  import Ruler from '@lucide/svelte/icons/ruler';
  import Pilcrow from '@lucide/svelte/icons/pilcrow';
  import Layers from '@lucide/svelte/icons/layers';
  import Puzzle from '@lucide/svelte/icons/puzzle';
  import FileText from '@lucide/svelte/icons/file-text';
  import { KIND_NAMES } from './format';

  let { kind }: { kind: string } = $props();
  const icons = {
    choice: CircleDot,
    choices: SquareCheck,
    text: TextCursorInput,
    number: Ruler,
    essay: Pilcrow,
    several: Layers,
    custom: Puzzle,
    none: FileText,
  };
  const Icon = $derived(icons[kind as keyof typeof icons] ?? Puzzle);
  const name = $derived(KIND_NAMES[kind] ?? kind);
</script>

<span class="text-quiet inline-flex shrink-0" title={name}>
  <Icon size={16} strokeWidth={1.75} aria-hidden="true" />
  <span class="sr-only">{name}</span>
</span>
