<script lang="ts">
  interface Props {
    counts: {
      readonly intact: number;
      readonly altered: number;
      readonly missing: number;
      readonly extra: number;
    };
    /** What the whole width stands for. */
    most: number;
  }
  let { counts, most }: Props = $props();
  const uid = $props.id();
  const WIDTH = 130;
  const HEIGHT = 10;
  /** Colour is never alone: each state has a pattern, and the numbers stand beside the bar. */
  const STATES = [
    { key: 'intact', colour: 'var(--saddle)', path: '' },
    { key: 'altered', colour: 'var(--ochre)', path: 'M0 5H6' },
    { key: 'missing', colour: 'var(--brick)', path: 'M0 6L6 0' },
    { key: 'extra', colour: 'var(--plum)', path: 'M3 0V6' },
  ] as const;
  /** Something that there is has a width that can be seen. */
  const LEAST = 3;
  const parts = $derived.by(() => {
    let from = 0;
    return STATES.map((s) => {
      const n = counts[s.key];
      const width = n === 0 ? 0 : Math.max(LEAST, (n / most) * WIDTH);
      const part = { ...s, x: from, width };
      from += width;
      return part;
    });
  });
</script>

<svg width={WIDTH} height={HEIGHT} viewBox="0 0 {WIDTH} {HEIGHT}" class="block" data-testid="state-bar">
  <defs>
    {#each STATES as s (s.key)}<pattern id="{uid}-{s.key}" width="6" height="6" patternUnits="userSpaceOnUse"
        ><rect width="6" height="6" fill={s.colour} />{#if s.path}<path
            d={s.path}
            stroke="rgba(255,255,255,0.65)"
            stroke-width="1.2"
          />{/if}</pattern
      >{/each}
  </defs>
  {#each parts as p (p.key)}{#if p.width > 0}<rect
        x={p.x}
        width={p.width}
        height={HEIGHT}
        fill="url(#{uid}-{p.key})"
      />{/if}{/each}
</svg>
