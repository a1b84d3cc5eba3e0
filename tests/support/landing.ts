import type { SettingsChoice } from '@alforja/core';

/** Every setting goes along but who may see it, which nobody has asked for. */
export const ALL_SETTINGS: SettingsChoice = {
  dates: true,
  attempts: true,
  timeLimit: true,
  passMark: true,
  instructions: true,
  visibility: false,
  review: true,
};
