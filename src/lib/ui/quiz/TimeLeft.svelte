<script lang="ts">
  import { onMount } from 'svelte';

  /** What is left of the time; tells once when it is over. */
  let { minutes, startedAt, over }: { minutes: number; startedAt: number; over: () => void } = $props();
  let now = $state(Date.now());
  const left = $derived(Math.max(0, Math.round(startedAt / 1000 + minutes * 60 - now / 1000)));
  const shown = $derived(`${Math.floor(left / 60)}:${String(left % 60).padStart(2, '0')}`);
  onMount(() => {
    let told = false;
    const tick = setInterval(() => {
      now = Date.now();
      if (left > 0 || told) return;
      told = true;
      over();
    }, 1000);
    return () => clearInterval(tick);
  });
</script>

<span class="num {left < 60 ? 'text-ochre font-semibold' : ''}" role="timer" aria-label="Time left"
  >{shown}</span
> left
