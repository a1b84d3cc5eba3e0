<script lang="ts">
  import { plural } from '../format';

  /** That a list goes on, where a page brings only the first of it. */
  let { more = 0 }: { more?: number | undefined } = $props();
</script>

{#if more > 0}<p class="text-quiet mb-3 text-[13px]">
    and {plural(more, 'more', 'more')}: the receipt as a page, CSV or JSON lists them
  </p>{/if}
