<script lang="ts">
  import CircleDot from '@lucide/svelte/icons/circle-dot';
  import SquareCheck from '@lucide/svelte/icons/square-check';
  import TextCursorInput from '@lucide/svelte/icons/text-cursor-input';
  import Ruler from '@lucide/svelte/icons/ruler';
  import Pilcrow from '@lucide/svelte/icons/pilcrow';
  import ListOrdered from '@lucide/svelte/icons/list-ordered';
  import Link2 from '@lucide/svelte/icons/link-2';
  import ArrowLeftRight from '@lucide/svelte/icons/arrow-left-right';
  import RectangleEllipsis from '@lucide/svelte/icons/rectangle-ellipsis';
  import ChevronsUpDown from '@lucide/svelte/icons/chevrons-up-down';
  import Highlighter from '@lucide/svelte/icons/highlighter';
  import MapPin from '@lucide/svelte/icons/map-pin';
  import Crosshair from '@lucide/svelte/icons/crosshair';
  import Route from '@lucide/svelte/icons/route';
  import Waypoints from '@lucide/svelte/icons/waypoints';
  import Tags from '@lucide/svelte/icons/tags';
  import Move from '@lucide/svelte/icons/move';
  import SlidersHorizontal from '@lucide/svelte/icons/sliders-horizontal';
  import Upload from '@lucide/svelte/icons/upload';
  import Pencil from '@lucide/svelte/icons/pencil';
  import Volume2 from '@lucide/svelte/icons/volume-2';
  import CircleStop from '@lucide/svelte/icons/circle-stop';
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
    order: ListOrdered,
    associate: Link2,
    match: ArrowLeftRight,
    gapMatch: RectangleEllipsis,
    inlineChoice: ChevronsUpDown,
    hottext: Highlighter,
    hotspot: MapPin,
    selectPoint: Crosshair,
    graphicOrder: Route,
    graphicAssociate: Waypoints,
    graphicGapMatch: Tags,
    positionObject: Move,
    slider: SlidersHorizontal,
    upload: Upload,
    drawing: Pencil,
    media: Volume2,
    endAttempt: CircleStop,
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
