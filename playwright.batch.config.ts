import { defineConfig } from '@playwright/test';
import ordinary from './playwright.config.ts';

/** Forty courses with 300 questions each: apart from `npm test`, since it takes a minute of its own. */
process.env['ALFORJA_PAIRS'] = '40';
process.env['ALFORJA_ITEMS'] = '300';
export default defineConfig({ ...ordinary, testDir: 'tests/batch' });
