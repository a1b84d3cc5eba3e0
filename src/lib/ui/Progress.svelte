<script lang="ts">
  import Progressbar from 'flowbite-svelte/Progressbar.svelte';

  interface Props {
    label: string;
    done: number;
    /** 0 where it is not known yet. */
    total: number;
  }
  let { label, done, total }: Props = $props();
  /** What shows that something has begun. */
  const BEGUN = 5;
  const percent = $derived(total > 0 ? Math.round((100 * done) / total) : null);
</script>

<Progressbar
  progress={percent ?? BEGUN}
  size="h-1"
  role="progressbar"
  aria-label={label}
  aria-valuemin={0}
  aria-valuemax={100}
  aria-valuenow={percent}
/>
