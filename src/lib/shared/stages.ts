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

/** The steps of a sending, in their order; a file goes fewer than a course. */
export const STEPS = ['export', 'read', 'convert', 'upload', 'wait', 'back', 'attach', 'compare'] as const;
export type StepName = (typeof STEPS)[number];

/** What is called otherwise, and what is left out, where a file is the destination. */
const COURSE_STEPS: Readonly<Record<StepName, string>> = {
  export: 'Export from both courses',
  read: 'Read what they hold',
  convert: 'Plan and write the package',
  upload: 'Upload it',
  wait: 'Wait for the import',
  back: 'Read back what is there',
  attach: 'Attach rubrics',
  compare: 'Compare with the plan',
};
export const FILE_STEPS = {
  export: 'Export from the course',
  read: 'Read what it holds',
  convert: 'Plan and write the package',
  back: 'Read what came back',
  compare: 'Compare with what was sent',
} as const satisfies Partial<Record<StepName, string>>;

export const stepWords = (toCourse: boolean): Readonly<Partial<Record<StepName, string>>> =>
  toCourse ? COURSE_STEPS : FILE_STEPS;
