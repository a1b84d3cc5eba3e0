<script lang="ts">
  import type { Stage } from '$lib/shared/stages';
  import type { StageState } from './strap';

  let { stages, here, base }: { stages: readonly StageState[]; here: Stage; base: string } = $props();
</script>

<nav aria-label="Stages" class="no-print">
  <ol class="strap grid" style="grid-template-columns: repeat({stages.length}, minmax(0, 1fr))">
    {#each stages as s, at (s.stage)}
      <li class="relative pt-[22px]">
        {#if at < stages.length - 1}<span
            class="bg-saddle absolute top-[8px] left-[8px] h-[2px] w-full"
            aria-hidden="true"
          ></span>{/if}
        <svg
          width="24"
          height="24"
          viewBox="-12 -12 24 24"
          class="text-saddle absolute -top-[3px] -left-[4px]"
          aria-hidden="true"
        >
          {#if s.stage === here}<path
              d="M0-11L11 0 0 11-11 0z"
              fill="var(--paper)"
              stroke="currentColor"
              stroke-width="1.6"
            />{/if}
          <path
            d="M0-7L7 0 0 7-7 0z"
            fill={s.done || s.stage === here ? 'currentColor' : 'var(--paper)'}
            stroke="currentColor"
            stroke-width="1.6"
          />
        </svg>
        <a
          href="{base}/{s.stage}"
          aria-current={s.stage === here ? 'step' : undefined}
          class="block min-h-6 pr-3 max-md:pr-0"
        >
          <span
            class="block text-[14px] {s.stage === here
              ? 'max-md:whitespace-nowrap'
              : 'max-md:sr-only'} {s.stage === here ? 'font-bold' : s.done ? 'font-semibold' : 'text-quiet'}"
            >{s.name}</span
          >
          <span class="text-quiet line-clamp-2 text-[12.5px] leading-tight max-md:sr-only">{s.says}</span>
        </a>
      </li>
    {/each}
  </ol>
</nav>
