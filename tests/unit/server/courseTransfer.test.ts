import { expect } from 'chai';
import { DEFAULT_OPTIONS, type TransferState } from '../../../src/lib/shared/transfers.ts';
import { findCourses, courseNamed, requestSnapshot } from '../../../src/lib/server/library/courses.ts';
import { listRubrics, rubricAt } from '../../../src/lib/server/library/heldRubrics.ts';
import {
  changeRubric,
  copyRubric,
  makeIndependent,
  packRubrics,
  removeRubric,
} from '../../../src/lib/server/library/ownRubrics.ts';
import { connect, disconnect, refreshSystems } from '../../../src/lib/server/library/systems.ts';
import { batchView, proposePairs, startBatch } from '../../../src/lib/server/transfer/batches.ts';
import { beginSending, beginUndo } from '../../../src/lib/server/transfer/begin.ts';
import { decide, whoDecides } from '../../../src/lib/server/transfer/decisions.ts';
import { judgedDifferences } from '../../../src/lib/server/transfer/judged.ts';
import { mend } from '../../../src/lib/server/transfer/mend.ts';
import { setOverride } from '../../../src/lib/server/transfer/plan.ts';
import { receive } from '../../../src/lib/server/transfer/receive.ts';
import { receiptById } from '../../../src/lib/server/transfer/receipt.ts';
import { startAgain, startTransfer } from '../../../src/lib/server/transfer/start.ts';
import { stateOf } from '../../../src/lib/server/transfer/state.ts';
import { allCourses } from '../../../src/lib/server/store/courses.ts';
import { readStored } from '../../../src/lib/server/store/files.ts';
import { listNotices } from '../../../src/lib/server/store/notices.ts';
import { packageById } from '../../../src/lib/server/store/packages.ts';
import { bringBack, throwAway } from '../../../src/lib/server/library/trash.ts';
import { latestSnapshot, looksInto } from '../../../src/lib/server/store/snapshots.ts';
import { listThrown } from '../../../src/lib/server/store/trash.ts';
import { listSystems } from '../../../src/lib/server/store/systems.ts';
import { transferById, type Transfer } from '../../../src/lib/server/store/transfers.ts';
import type { Habit } from '../../../standins/habits.ts';
import { quayside } from '../../../standins/data.ts';
import { CourseSystem } from '../../../standins/system.ts';
import { read } from '../../support/read.ts';
import { closeServer, openServer, settled } from '../../support/server.ts';

describe('a transfer between courses', () => {
  let system: CourseSystem;
  let systemId: string;
  const course = (classId: string): string => `${systemId}:${classId}`;
  const habits = (...on: readonly Habit[]): void => {
    for (const habit of Object.keys(system.habits) as Habit[]) system.setHabit(habit, on.includes(habit));
  };
  const transfer = async (id: string): Promise<Transfer> => (await transferById(id))!;
  const state = async (id: string): Promise<TransferState> => stateOf(await transfer(id));
  async function snapshots(...classIds: readonly string[]): Promise<void> {
    for (const id of classIds) await requestSnapshot(course(id));
    await settled();
  }
  /** A transfer of the things of these titles. */
  async function started(to: string | null, ...titles: readonly string[]): Promise<string> {
    await snapshots('k-tides-s26', ...(to ? [to] : []));
    const { outline } = (await latestSnapshot(course('k-tides-s26')))!;
    const ticks = outline.things
      .filter((t) => titles.some((title) => t.title.startsWith(title)))
      .map((t) => ({ kind: t.kind, nodeId: t.id }));
    expect(ticks.length, `things called ${titles.join(', ')}`).to.be.above(0);
    return (await startTransfer({ courseId: course('k-tides-s26') }, to && course(to), { ticks }))!;
  }
  async function sent(id: string): Promise<Transfer> {
    expect(await beginSending(await transfer(id))).to.equal(true);
    await settled();
    return transfer(id);
  }
  async function undone(id: string): Promise<Transfer> {
    habits();
    expect(await beginUndo(id)).to.equal(true);
    await settled();
    return transfer(id);
  }
  const headers = { Authorization: 'Bearer demo-coordinator', 'Content-Type': 'application/json' };
  /** What a course holds, asked of the system itself. */
  async function held(classId: string): Promise<{ id: string; kind: string; title: string }[]> {
    const response = await fetch(`${system.address}/contents/v1/classes/${classId}/outline`, { headers });
    return ((await response.json()) as { things: { id: string; kind: string; title: string }[] }).things;
  }
  async function retitle(classId: string, thing: string, title: string): Promise<void> {
    const address = `${system.address}/contents/v1/classes/${classId}/things/${thing}`;
    await fetch(address, { method: 'PATCH', headers, body: JSON.stringify({ title }) });
  }
  const heldThere = async (): Promise<string[]> => (await held('k-tides-a26')).map((t) => t.title).sort();

  before(async () => {
    await openServer();
    const programme = { pairs: 2, items: 5 };
    system = await new CourseSystem(await quayside({ port: 0, folder: null, programme })).start();
    systemId = await connect(system.address, 'demo-coordinator');
    await settled();
  });
  beforeEach(() => habits());
  after(async () => {
    await disconnect(systemId);
    await system.stop();
    await closeServer();
  });

  it('knows the connected system and its courses, and finds them forgivingly', async () => {
    const [listed] = (await listSystems()).filter((s) => s.id === systemId);
    expect([listed!.about.user.name, listed!.trouble]).to.deep.equal(['Nerea Sal', null]);
    expect(listed!.courses).to.be.above(10);
    const found = await findCourses('sprng tides');
    expect(found[0]!.id).to.equal(course('k-tides-s26'));
    const all = await allCourses();
    expect(courseNamed(all, 'K-TIDES-S26')!.id).to.equal(course('k-tides-s26'));
    expect(courseNamed(all, 'no such course')).to.equal(null);
  });

  it('keeps the courses last seen while a system does not answer, and says why', async () => {
    const id = await connect(system.address, 'demo-odile');
    await settled();
    const before = (await listSystems()).find((s) => s.id === id)!;
    expect(before.name, 'told apart by whose it is').to.match(/\(.+\)$/u);
    habits('losesAnswers');
    await refreshSystems(true);
    await settled();
    expect((await listSystems()).find((s) => s.id === id)!.courses).to.equal(before.courses);
    await disconnect(id);
  });

  it('plans by name and term, sends, reads back, and is intact', async () => {
    const id = await started('k-tides-a26', 'Final exam');
    await state(id);
    await settled();
    const { plan } = await state(id);
    expect(plan!.landings.map((l) => [l.kind, l.sectionBy]).sort()).to.deep.equal([
      ['bank', 'outside'],
      ['bank', 'outside'],
      ['quiz', 'name'],
    ]);
    expect(plan!.landings.find((l) => l.kind === 'quiz')!.opens).to.match(/^2027-01-11T09:00/u);
    const before = await heldThere();
    const done = await sent(id);
    expect(done.sending!.steps.every((s) => s.state === 'done')).to.equal(true);
    expect(done.arrival!.comparison.verdict).to.equal('intact');
    expect(done.tally!.open).to.equal(0);
    expect((await listNotices(5)).some((n) => n.text.includes('has arrived') && n.tone === 'good')).to.equal(
      true,
    );
    const again = await sent(id);
    expect(again.sending!.created.length, 'nothing twice').to.equal(done.sending!.created.length);
    const back = await undone(id);
    expect(await heldThere()).to.deep.equal(before);
    expect(back.sending!.undone!.refused).to.deep.equal([]);
    expect(back.sending!.created).to.deep.equal([]);
  });

  it('sends what the source holds now, where it has changed since somebody chose', async () => {
    const id = await started('k-tides-a26', 'Final exam');
    const link = (await held('k-tides-s26')).find((t) => t.kind === 'link')!;
    await retitle('k-tides-s26', link.id, 'Tide tables, moved');
    try {
      const done = await sent(id);
      expect(done.sending!.failure).to.equal(null);
      expect(done.sending!.notes.join(' ')).to.match(/source has changed since you chose/u);
      expect((await packageById(done.packageId))!.tree, 'its page can be shown').not.to.equal(null);
      expect(done.arrival!.comparison.verdict).to.equal('intact');
    } finally {
      await retitle('k-tides-s26', link.id, link.title);
      await undone(id);
    }
  });

  it('names what the destination did otherwise, sets it there, and asks about the rest', async () => {
    habits('landsByPosition', 'stripsFeedback');
    const id = await started('k-tides-a26', 'Final exam');
    await sent(id);
    const before = await judgedDifferences(await transfer(id));
    const section = before.find((d) => d.about === 'landing')!;
    expect([section.mend, section.planned]).to.deep.equal(['set', 'Exam period']);
    habits('stripsFeedback');
    expect(await mend(await transfer(id), (await transfer(id)).arrival!, [section.id])).to.deep.equal([]);
    await settled();
    const after = await judgedDifferences(await transfer(id));
    expect(after.some((d) => d.about === 'landing')).to.equal(false);
    const rest = after.map((d) => d.id);
    expect(rest.length).to.equal(2);
    await decide(await transfer(id), rest, 'Feedback is given in class.');
    expect((await transfer(id)).tally!.open).to.equal(0);
    const receipt = (await receiptById(id))!;
    expect([receipt.accepted, receipt.open, receipt.way.by]).to.deep.equal([2, 0, 'Nerea Sal']);
    await undone(id);
  });

  it('stops where the sections differ, says why as data, and goes on with that course’s', async () => {
    habits('refusesSectionMismatch');
    const id = await started('k-tides-a26-02', 'Final exam');
    await state(id);
    await settled();
    for (const l of (await state(id)).plan!.landings)
      if (l.kind === 'quiz')
        await setOverride(id, `quiz ${l.node}`, {
          section: (await state(id)).to.kind === 'course' ? 's1' : null,
        });
    await settled();
    const stopped = await sent(id);
    expect(stopped.sending!.failure!.reason).to.equal('section-count');
    expect(await beginSending(stopped, { sectionsAs: 'destination' })).to.equal(true);
    await settled();
    expect((await transfer(id)).sending!.failure).to.equal(null);
    await undone(id);
  });

  it('goes into a file as into a course: any part, with a receipt', async () => {
    const id = await started(null, 'Final exam');
    const done = await sent(id);
    expect(done.sending!.steps.map((s) => s.name)).to.deep.equal(['export', 'read', 'convert']);
    const whole = await readStored(done.sent!.parts[0]!.sha256);
    const kept = await read(whole, 'kept.zip');
    expect(kept.quizzes.map((q) => q.title)).to.deep.equal(['Final exam, tides and lights']);
    expect(kept.banks.length, 'what it draws from comes along').to.equal(2);
    const receipt = (await receiptById(id))!;
    expect(receipt.way.from).to.contain('Tides and Tidal Streams').and.to.contain('Spring 2026');
    expect(receipt.way.to).to.equal(null);
    expect(await whoDecides(done)).to.equal('Nerea Sal');
  });

  it('takes no dropped file for what a course gives back itself', async () => {
    const id = await started('k-tides-a26', 'Final exam');
    expect(await receive(id, (await transfer(id)).packageId)).to.equal('course');
  });

  it('goes again into another course, with names set by hand and without sections of the first', async () => {
    const id = await started('k-tides-a26', 'Final exam');
    await setOverride(id, 'quiz q1', { name: 'Mock exam', section: 's2' });
    await settled();
    const other = (await startAgain(id, course('k-coast-a26')))!;
    expect((await transfer(other)).overrides).to.deep.equal({ 'quiz q1': { name: 'Mock exam' } });
    expect(await startAgain(id, course('no-such-course'))).to.equal(null);
    expect(await startTransfer({ courseId: course('k-fog-s26') }, null), 'no snapshot yet').to.equal(null);
  });

  it('many courses go as one batch, each pair by its own transfer', async () => {
    const pairs = (await proposePairs('Spring 2026', 'Autumn 2026')).filter((p) =>
      /^p\d/u.test(p.source.id.split(':')[1]!),
    );
    expect(pairs.every((p) => p.dest?.code === p.source.code)).to.equal(true);
    const id = await startBatch('A programme', { kinds: ['quiz', 'bank'], options: DEFAULT_OPTIONS }, [
      ...pairs.map((p) => ({ source: p.source.id, dest: p.dest!.id, exception: null })),
      { source: course('k-tides-s26'), dest: course('k-tides-a26'), exception: { kinds: [] } },
      { source: course('k-tides-s26'), dest: course('gone'), exception: null },
    ]);
    await settled();
    const rows = (await batchView(id))!.rows;
    expect(rows[0], 'the troubled one first').to.deep.include({ state: 'failed' });
    expect(rows.filter((r) => r.state === 'done').map((r) => r.counts!.intact)).to.deep.equal([5, 5]);
    expect(rows.filter((r) => r.state === 'left').length).to.equal(1);
    const said = (await listNotices(5)).find((n) => n.text.includes('A programme'))!;
    expect([said.text, said.tone]).to.deep.equal([
      '“A programme”: 2 courses have arrived, nothing differs, 1 stopped.',
      'bad',
    ]);
    expect(await batchView('no-such-batch')).to.equal(null);
  });

  it('a copy of a course is thrown away under the course’s name, and comes back', async () => {
    await snapshots('k-coast-s26');
    const [look] = await looksInto(course('k-coast-s26'));
    expect(await throwAway('look', look!.id)).to.equal('done');
    const [thrown] = await listThrown();
    expect(thrown).to.include({ kind: 'look', id: look!.id });
    expect(thrown!.name).to.match(/^\p{Lu}[\p{L} ]+$/u);
    expect((await looksInto(course('k-coast-s26'))).map((l) => l.id)).not.to.include(look!.id);
    expect(await bringBack('look', look!.id)).to.equal('done');
    expect((await looksInto(course('k-coast-s26'))).map((l) => l.id)).to.include(look!.id);
  });

  it('rubrics of a course are listed with what they grade, copied, followed and packed', async () => {
    await snapshots('k-coast-s26');
    const listed = (await listRubrics()).filter((r) => r.place === course('k-coast-s26'));
    expect(listed.length).to.be.above(0);
    const [first] = listed;
    const follower = (await copyRubric(first!.place, first!.id, true))!;
    expect(
      await changeRubric(follower, {
        ...(await rubricAt('own', follower))!.rubric,
        freeComments: false,
      } as never),
    ).to.match(/follows another/u);
    expect(await makeIndependent(follower)).to.equal(true);
    expect(await makeIndependent(follower)).to.equal(false);
    const packed = (await packRubrics([{ place: 'own', rubric: follower }]))!;
    await settled();
    expect((await packageById(packed))!.summary!.rubrics).to.equal(1);
    expect(await packRubrics([{ place: 'own', rubric: 'gone' }])).to.equal(null);
    expect(await removeRubric(follower)).to.equal(true);
    expect(await removeRubric(follower)).to.equal(false);
    expect(await copyRubric('own', 'gone', false)).to.equal(null);
  });
});
