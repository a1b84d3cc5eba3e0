import type { ThemeConfig } from 'flowbite-svelte';

/** Flowbite's components in our look: hairlines, small radii, no shadows. */
export const theme: ThemeConfig = {
  button: { base: 'rounded font-semibold focus-within:ring-0 whitespace-nowrap shadow-none' },
  progressbar: { base: 'bg-hair dark:bg-hair', inside: 'bg-saddle dark:bg-saddle' },
  modal: { base: 'bg-surface border border-hair text-ink' },
};
