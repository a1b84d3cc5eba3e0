import { randomUUID } from 'node:crypto';
import { expect } from 'chai';
import type { JobView } from '../../../src/lib/shared/types.ts';
import { write } from '../../../src/lib/server/store/database.ts';
import {
  announce,
  announceSubject,
  latestNews,
  live,
  newsSince,
  type NewsItem,
} from '../../../src/lib/server/store/news.ts';
import { openStore } from '../../../src/lib/server/store/open.ts';
import { until } from '../../support/server.ts';

const job = (state: JobView['state']): JobView => ({
  id: 'j',
  kind: 'read',
  subject: 's',
  state,
  step: '',
  done: 0,
  total: 0,
  failure: null,
});

describe('news', () => {
  before(openStore);

  it('tells a page what was told since it was loaded, in order, and nothing twice', async () => {
    const before = String(await latestNews());
    await write((tx) => announce(tx, job('running')));
    await write((tx) => announceSubject(tx, 's'));
    await write((tx) => announce(tx, job('done')));
    const said = (items: NewsItem[] | null) => items?.map((n) => n.job?.state ?? n.changed);
    expect(said(await newsSince(before))).to.deep.equal(['running', 's', 'done']);
    expect(await newsSince(String(await latestNews()))).to.deep.equal([]);
  });

  it('says that it cannot tell, for numbers it never gave, what is too long ago, and rubbish', async () => {
    await write(async (tx) => {
      for (let n = 0; n < 1600; n++) await announceSubject(tx, `n${n}`);
    });
    const latest = await latestNews();
    for (const id of ['', 'x', '-1', '1e3', String(latest + 5), String(latest - 700), '1'])
      expect(await newsSince(id), id).to.equal(null);
  });

  it('is not told of what was not kept', async () => {
    const heard: NewsItem[] = [];
    const stop = live.listen((n) => heard.push(n));
    const mine = randomUUID();
    await write(async (tx) => {
      await announceSubject(tx, mine);
      throw new Error('in the middle');
    }).catch(() => undefined);
    const after = randomUUID();
    await until('later news', async () => {
      await write((tx) => announceSubject(tx, after));
      return heard.some((n) => n.changed === after);
    });
    stop();
    expect(heard.map((n) => n.changed)).not.to.include(mine);
    const ids = heard.map((n) => n.id);
    expect(ids).to.deep.equal([...new Set(ids)].sort((a, b) => a - b));
  });
});
