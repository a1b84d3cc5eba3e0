/** What the editor of rubrics needs in the browser, and nothing heavier. */
export * from './rubric.ts';
export { levelOfText, levelText, pointsOf, pointsText } from '../model/levelText.ts';
export { criterionPoints, rubricPoints } from '../model/rubric.ts';
export { near } from '../model/number.ts';
