import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { unzipSync } from 'fflate';
import { OneRosterConnector } from '../../../src/lib/server/connectors/oneroster.ts';
import { inside } from '../../../src/lib/server/connectors/door.ts';
import type { HttpOptions } from '../../../src/lib/server/connectors/http.ts';
import { rubricsTask } from '../../../src/lib/server/work/rubrics.ts';
import type { Connector, LandingOrder } from '../../../src/lib/server/connectors/types.ts';
import { foreshore, quayside } from '../../../standins/data.ts';
import { CourseSystem } from '../../../standins/system.ts';

const NEVER = new AbortController().signal;

const oneRoster = (options: Omit<HttpOptions, 'inside'>): OneRosterConnector =>
  new OneRosterConnector({ inside, ...options }, (files) => rubricsTask({ files }));

describe('a course system over HTTP', () => {
  let system: CourseSystem;
  const retried: string[] = [];
  const as = (token: string): Connector =>
    oneRoster({
      name: 'Quayside',
      address: system.address,
      token,
      onRetry: (w) => retried.push(w),
    });
  before(async () => {
    system = await new CourseSystem(
      await quayside({ port: 0, folder: null, programme: { pairs: 60, items: 4 } }),
    ).start();
  });
  after(() => system.stop());
  beforeEach(() => {
    retried.length = 0;
    for (const habit of Object.keys(system.habits) as (keyof typeof system.habits)[])
      system.setHabit(habit, false);
  });

  it('is listed whole, page by page, with terms, codes, people and what each course holds', async () => {
    const all = await as('demo-coordinator').courses();
    expect(all.length).to.equal(system.courses.size).and.to.be.above(100);
    expect(all.find((c) => c.classId === 'k-tides-s26')).to.deep.include({
      code: 'NAV 205',
      section: '01',
      term: 'Spring 2026',
      termStart: '2026-02-02',
      people: ['Ilan Brook'],
      quizzes: 2,
      banks: 3,
      links: 1,
      items: 45,
      mayChange: true,
    });
  });

  it('shows what the roles of the token’s holder allow: own and shared courses, or all', async () => {
    const mine = await as('demo-ilan').courses();
    expect(mine.every((c) => c.own || !c.mayChange)).to.equal(true);
    expect(mine.map((c) => c.classId))
      .to.include.members(['k-tides-a26', 'k-tides-s26'])
      .and.not.include('k-coast-a26');
    const failure = await as('demo-ilan')
      .outline('k-coast-a26')
      .catch((e: Error) => e.message);
    expect(failure).to.match(/no such course, or it is not yours/u);
    const odile = as('demo-odile');
    expect((await odile.outline('k-tides-s26')).things.length).to.equal(6);
    const refused = await odile.openImport('k-tides-s26', ORDER, 'k').catch((e: Error) => e.message);
    expect(refused).to.match(/look into this course, not change it/u);
  });

  it('says plainly that a token is not known, and that nobody answers', async () => {
    expect(
      await as('nonsense')
        .about()
        .catch((e: Error) => e.message),
    ).to.match(/does not know this token/u);
    const nobody = oneRoster({ name: 'Nobody', address: 'http://127.0.0.1:1', token: 'x' });
    expect(await nobody.about().catch((e: Error) => e.message)).to.match(
      /is not answering .*4 tries.*Nothing is lost/u,
    );
  });

  const ORDER: LandingOrder = {
    sourceSections: 1,
    things: [
      {
        kind: 'bank',
        name: 'Bank 1',
        use: null,
        section: null,
        position: null,
        hidden: false,
        opens: null,
        closes: null,
        review: null,
      },
    ],
  };
  const bankOf = async (c: Connector): Promise<Uint8Array> => {
    const { things } = await c.outline('p0-old');
    return c.exportPackage(
      'p0-old',
      things.filter((t) => t.kind === 'bank').map((t) => t.id),
      NEVER,
    );
  };

  it('makes one import of a request however often it is asked for, though answers are lost', async () => {
    const c = as('demo-coordinator');
    const bytes = await bankOf(c);
    system.setHabit('losesAnswers', true);
    const [first, second] = [
      await c.openImport('p1-new', ORDER, 'once'),
      await c.openImport('p1-new', ORDER, 'once'),
    ];
    expect(first.id).to.equal(second.id);
    await c.givePackage(first.id, bytes);
    await c.givePackage(first.id, bytes);
    const done = await c.waitFor(first.id, NEVER);
    expect([done.state, done.created.length, retried.length]).to.deep.equal(['completed', 1, 2]);
    expect((await c.outline('p1-new')).things.length).to.equal(1);
    const other = await c.givePackage(first.id, bytes.slice(1)).catch((e: Error) => e.message);
    expect(other).to.match(/given another package/u);
  });

  it('tells what is handed in and graded by hand, and hangs a rubric on it', async () => {
    const { assignments, rubrics } = await as('demo-coordinator').outline('k-lights-a25');
    expect(assignments).to.deep.equal([
      { id: 'a1', title: 'Log of a night watch', points: 12 },
      { id: 'a2', title: 'Sounds by ear', points: 5 },
    ]);
    expect(rubrics!.map((r) => [r.rubric.title, r.rubric.attachedTo])).to.deep.equal([
      ['Night watch log', ['a1']],
    ]);
    await as('demo-coordinator').change('k-lights-a25', rubrics![0]!.rubric.id, { attachedTo: ['a2'] });
    const after = (await as('demo-coordinator').outline('k-lights-a25')).rubrics!;
    expect(after.map((r) => r.rubric.attachedTo)).to.deep.equal([['a2']]);
  });

  it('changes and takes out single things, and refuses what students have begun', async () => {
    const c = as('demo-coordinator');
    const warm = (await c.outline('k-tides-a26')).things.find((t) => t.kind === 'quiz')!;
    await c.change('k-tides-a26', warm.id, {
      title: 'Renamed',
      opens: '2026-12-01T08:00:00Z',
      section: 's5',
      attempts: 'unlimited',
      passMark: 3,
    });
    expect((await c.outline('k-tides-a26')).things.find((t) => t.id === warm.id)).to.deep.include({
      title: 'Renamed',
      opens: '2026-12-01T08:00:00Z',
      section: 's5',
      attempts: 'unlimited',
      passMark: 3,
    });
    expect(await c.remove('k-tides-a26', warm.id).catch((e: Error) => e.message)).to.match(
      /7 attempts open/u,
    );
  });

  it('gives cartridges with QTI 1.2, and the other QTI 2.1', async () => {
    const entries = Object.keys(
      unzipSync(await as('demo-coordinator').exportPackage('k-tides-s26', null, NEVER)),
    );
    expect(entries).to.include('imsmanifest.xml').and.to.include('links/l51.xml');
    const other = await new CourseSystem(await foreshore({ port: 0, folder: null })).start();
    try {
      const c = oneRoster({
        name: 'Foreshore',
        address: other.address,
        token: 'demo-coordinator',
      });
      const names = Object.keys(unzipSync(await c.exportPackage('f-pilot-s26', null, NEVER)));
      expect(names.some((n) => n.startsWith('tests/'))).to.equal(true);
    } finally {
      await other.stop();
    }
  });

  it('answers OneRoster’s filter, sort, fields and paging (1EdTech OneRoster 1.2, "Query", from memory)', async () => {
    const get = async (path: string) => {
      const response = await fetch(`${system.address}/ims/oneroster/rostering/v1p2/${path}`, {
        headers: { Authorization: 'Bearer demo-coordinator' },
      });
      return {
        status: response.status,
        total: response.headers.get('x-total-count'),
        link: response.headers.get('link'),
        body: (await response.json()) as Record<string, Record<string, unknown>[]>,
      };
    };
    const found = await get(
      `classes?filter=${encodeURIComponent("title~'tidal' AND classCode='02'")}&fields=sourcedId`,
    );
    expect(found.body).to.deep.equal({ classes: [{ sourcedId: 'k-tides-a26-02' }] });
    const page = await get('classes?limit=2&offset=2&sort=title&orderBy=desc');
    expect([page.body['classes']!.length, page.total]).to.deep.equal([2, String(system.courses.size)]);
    expect(page.link).to.match(/offset=4.*rel="next"/u);
    expect((await get('terms')).body['academicSessions']!.length).to.equal(3);
    expect((await get("classes?filter=title is 'x'")).status).to.equal(400);
    expect((await get('classes/k-tides-a26')).body['class']).to.deep.include({ classCode: '01' });
  });

  it('keeps what it holds over a restart', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'alforja-standin-'));
    const systems: CourseSystem[] = [];
    const open = async (): Promise<[CourseSystem, Connector]> => {
      const made = await new CourseSystem(await foreshore({ port: 0, folder })).start();
      systems.push(made);
      return [made, oneRoster({ name: 'F', address: made.address, token: 'demo-coordinator' })];
    };
    try {
      const [before, c] = await open();
      const { id } = (await c.outline('f-pilot-s26')).things[0]!;
      await c.change('f-pilot-s26', id, { title: 'Kept' });
      before.setHabit('slow', true);
      await before.stop();
      const [after, again] = await open();
      expect(after.habits.slow).to.equal(true);
      expect((await again.outline('f-pilot-s26')).things.find((t) => t.id === id)?.title).to.equal('Kept');
    } finally {
      await Promise.all(systems.map((s) => s.stop()));
      rmSync(folder, { recursive: true, force: true });
    }
  });

  it('asks again after a failure of the server, and tells one that answers nonsense', async () => {
    let asked = 0;
    const odd: Server = createServer((request, response) => {
      asked += 1;
      response.statusCode = asked === 1 ? 503 : 200;
      response.end(request.url?.includes('about') ? '{"name":7}' : '{}');
    }).listen(0, '127.0.0.1');
    await new Promise((done) => odd.once('listening', done));
    const { port } = odd.address() as { port: number };
    const c = oneRoster({ name: 'Odd', address: `http://127.0.0.1:${port}`, token: 'x' });
    expect(await c.about().catch((e: Error) => e.message)).to.match(/something else than expected/u);
    expect(asked).to.equal(2);
    await new Promise((done) => odd.close(done));
  });
});
