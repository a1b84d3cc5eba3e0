import type { ThemeConfig } from 'flowbite-svelte';

/** Flowbite's components in our look: hairlines, small radii, no shadows, buttons of one size. */
export const theme: ThemeConfig = {
  button: {
    base: 'h-[30px] px-3 py-0 text-[13.5px] rounded font-semibold focus-within:ring-0 whitespace-nowrap shadow-none',
  },
  progressbar: { base: 'bg-hair dark:bg-hair', inside: 'bg-saddle dark:bg-saddle' },
  modal: { base: 'bg-surface border border-hair text-ink' },
};
