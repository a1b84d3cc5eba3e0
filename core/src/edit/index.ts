/** What editors need in the browser, and nothing heavier: of rubrics, and of the names of files. */
export * from './rubric.ts';
export { levelOfText, levelText, pointsOf, pointsText } from '../model/levelText.ts';
export { criterionPoints, rubricPoints } from '../model/rubric.ts';
export { near } from '../model/number.ts';
export { plainNames, plainPath } from './plainNames.ts';
