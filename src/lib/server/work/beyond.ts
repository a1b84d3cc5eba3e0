import { finding, type Finding } from '@alforja/core';

/** Why work was broken off that takes more time than it may. @param deadline ms @param step what was being done */
export const tooLong = (deadline: number, step: string): Finding =>
  finding('work-too-long', 'error', {}, { seconds: Math.round(deadline / 1000), step });

/** The same of memory. @param megabytes what its thread may take */
export const tooMuch = (megabytes: number, step: string): Finding =>
  finding('work-too-large', 'error', {}, { megabytes, step });
