import { expect } from 'chai';
import { edited } from './edits.ts';
import { trial } from './trial.ts';

/** How many pairs of courses are looked at here; `npm run trials` goes on for as long as it is told to. */
const COURSES = 120;

describe('random trials', () => {
  it('find exactly what was changed between two courses, in every format and style', async () => {
    const misses: string[] = [];
    for (let seed = 1; seed <= COURSES; seed++)
      for (const { name, miss } of (await trial(seed)).outcomes)
        if (miss) misses.push(`seed ${seed}, ${name}: ${miss}`);
    expect(misses).to.deep.equal([]);
  });

  it('find edited courses as the edits made them, written in their own standard and read again', async () => {
    const misses: string[] = [];
    for (let seed = 1; seed <= COURSES; seed++)
      for (const { name, miss } of (await edited(seed)).outcomes)
        if (miss) misses.push(`seed ${seed}, ${name}: ${miss}`);
    expect(misses).to.deep.equal([]);
  });
});
