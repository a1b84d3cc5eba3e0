<script lang="ts">
  import type { State } from '@alforja/core';

  /** `knotted`: it differs, and somebody took it as it is. */
  let { state, knotted = false }: { state: State; knotted?: boolean } = $props();
  const colour = $derived(
    knotted
      ? 'text-saddle'
      : { intact: 'text-saddle', altered: 'text-ochre', missing: 'text-brick', extra: 'text-plum' }[state],
  );
</script>

<svg
  viewBox="0 0 96 30"
  preserveAspectRatio="none"
  width="100%"
  height="30"
  class={colour}
  aria-hidden="true"
  fill="none"
  stroke="currentColor"
  stroke-width="2.2"
>
  {#if knotted}<path
      d="M0 15H40M56 15H96M48 8C39 8 39 22 48 22S57 8 48 8M40 15H56"
      stroke-linecap="round"
      vector-effect="non-scaling-stroke"
    />
  {:else if state === 'intact'}<path d="M0 15H96" vector-effect="non-scaling-stroke" />
  {:else if state === 'altered'}<path
      d="M0 15H96"
      stroke-dasharray="8 5"
      vector-effect="non-scaling-stroke"
    />
  {:else if state === 'missing'}<path
      d="M0 15H38C50 15 52 24 44 25S36 19 42 17"
      stroke-linecap="round"
      vector-effect="non-scaling-stroke"
    />
  {:else}<path
      d="M96 15H58C46 15 44 24 52 25S60 19 54 17"
      stroke-linecap="round"
      vector-effect="non-scaling-stroke"
    />{/if}
</svg>
