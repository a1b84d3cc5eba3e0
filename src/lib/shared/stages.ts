/** The stages of a transfer in the order of the work; any can be opened at any time. */
export const STAGES = ['source', 'contents', 'forecast', 'landing', 'send', 'arrival', 'receipt'] as const;
export type Stage = (typeof STAGES)[number];

/** The formats that can be written, as people name them. */
export const TARGET_NAMES = {
  'cc1.1': 'Common Cartridge 1.1',
  'cc1.2': 'Common Cartridge 1.2',
  'cc1.3': 'Common Cartridge 1.3',
  'qti1.2': 'QTI 1.2',
  'qti2.1': 'QTI 2.1',
  'qti2.2': 'QTI 2.2',
  'qti3.0': 'QTI 3.0',
} as const;
export type TargetName = keyof typeof TARGET_NAMES;
