/** The stages of a transfer in the order of the work; any can be opened at any time. */
export const STAGES = ['source', 'contents', 'send', 'arrival', 'receipt'] as const;
export type Stage = (typeof STAGES)[number];
