<script lang="ts">
  import { count } from '../format';
  import type { Span } from './spans';

  /** What one side accepts, drawn; the words beside it say the same. */
  interface Props {
    span: Span;
    least: number;
    most: number;
    answer: number | null;
  }
  let { span, least, most, answer }: Props = $props();
  const WIDTH = 400;
  const LINE = 24;
  const at = (n: number): number => ((n - least) / (most - least)) * WIDTH;
  const single = $derived(span.low === span.high);
  const accepted = $derived(
    answer !== null &&
      (span.includesLow ? answer >= span.low : answer > span.low) &&
      (span.includesHigh ? answer <= span.high : answer < span.high),
  );
</script>

<svg
  viewBox="0 0 {WIDTH} 46"
  class="mt-1 block w-full max-w-[400px]"
  aria-hidden="true"
  data-testid="number-line"
  font-size="11"
  text-anchor="middle"
>
  <path d="M0 {LINE}H{WIDTH}" stroke="var(--hair)" stroke-width="1.5" />
  {#if !single}
    <rect
      x={at(span.low)}
      y={LINE - 3}
      width={at(span.high) - at(span.low)}
      height="6"
      fill="var(--saddle)"
    />
    {#each [{ n: span.low, closed: span.includesLow }, { n: span.high, closed: span.includesHigh }] as end, k (k)}
      {#if !end.closed}<circle
          cx={at(end.n)}
          cy={LINE}
          r="4"
          fill="var(--surface)"
          stroke="var(--saddle)"
          stroke-width="1.6"
        />{/if}
      <text x={at(end.n)} y={LINE + 18} fill="var(--quiet)">{count(end.n)}</text>
    {/each}
  {/if}
  {#if span.value !== null || single}
    <circle cx={at(span.value ?? span.low)} cy={LINE} r="4.5" fill="var(--saddle)" />
    {#if single}<text x={at(span.low)} y={LINE + 18} fill="var(--quiet)">{count(span.low)}</text>{/if}
  {/if}
  {#if answer !== null}
    <path d="M{at(answer)} {LINE - 9}V{LINE + 7}" stroke="var(--ochre)" stroke-width="2" />
    <text x={at(answer)} y={LINE - 13} fill="var(--ochre)">{count(answer)} {accepted ? '✓' : '✗'}</text>
  {/if}
</svg>
