<script lang="ts">
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import type { Throwable } from '$lib/shared/trash';
  import { thrown } from './thrown.svelte';

  let { kind, id, name }: { kind: Throwable; id: string; name: string } = $props();
</script>

<button
  type="button"
  class="text-quiet hover:text-brick grid size-7 place-items-center rounded"
  title="Throw away"
  aria-label="Throw away {name}"
  onclick={() => thrown.away(kind, [id], name)}><Trash2 size={15} /></button
>
