import { expect } from 'chai';
import { RulesFile } from '@alforja/core';
import { documentsView, rememberDocument } from '../../../src/lib/server/library/documents.ts';
import { layerView, putRight, undoOrRedo } from '../../../src/lib/server/library/putRight.ts';
import {
  removeLayout,
  renameLayout,
  rulesFile,
  takeRules,
} from '../../../src/lib/server/library/readingRules.ts';
import { bindTogether, BindingTrouble, filesNamed } from '../../../src/lib/server/library/together.ts';
import { listKnownLayouts } from '../../../src/lib/server/store/knownLayouts.ts';
import { listPackages, packageById } from '../../../src/lib/server/store/packages.ts';
import { startTransfer } from '../../../src/lib/server/transfer/start.ts';
import { ticksOf } from '../../../src/lib/server/store/ticks.ts';
import { bindTask } from '../../../src/lib/server/work/binding.ts';
import { brought, closeServer, openServer, settled, packageItems } from '../../support/server.ts';

const chapter = (n: number, right: readonly string[]): string =>
  right
    .map(
      (r, q) =>
        `${q + 1}. Reading ${n}.${q + 1}, which one?\na. alpha\nb. beta\nAnswer: ${r}\nSkill: ${'xyz'[q]!}\n`,
    )
    .join('\n');
const categories = async (id: string): Promise<(string | null)[]> =>
  (await packageItems(id)).map((i) => i.category);

describe('documents beside their questions', () => {
  before(openServer);
  after(closeServer);

  it('are read as somebody says, at once on the page and then for good; undone, as before', async () => {
    const held = await brought('said.txt', `${chapter(1, ['a', 'b'])}\nA remark of nobody’s.\n`);
    const first = (await documentsView(held.id, null))!;
    expect(first.shown.blocks.filter((b) => b.as === 'unread').map((b) => b.n)).to.deep.equal([11]);
    expect(first.documents[0]).to.include({ items: 2, keyed: 2, unread: 1, by: 'found' });
    const to = { ...first.shown.layout, labels: { Answer: 'key' as const, Skill: 'category' as const } };
    await putRight(held.id, {
      way: 'hand',
      edits: [
        { op: 'read-as', path: 'said.txt', to },
        { op: 'block', path: 'said.txt', block: 11, to: 'feedback' },
      ],
    });
    const then = (await documentsView(held.id, 'said.txt'))!;
    expect([then.shown.by, then.documents[0]!.unread]).to.deep.equal(['said', 0]);
    expect(then.shown.blocks.at(-1)).to.include({ as: 'item', said: 'feedback' });
    await settled();
    expect(await categories(held.id)).to.deep.equal(['x', 'y']);
    expect((await packageById(held.id))!.tree!.documents![0]!.by).to.equal('said');
    expect(await layerView(held.id)).to.include({ changes: 2, refused: 0 });
    await undoOrRedo(held.id, 'undo');
    await settled();
    expect(await categories(held.id)).to.deep.equal([null, null]);
  });

  it('are remembered by what they look like: others are read anew, and again when it is forgotten', async () => {
    const one = await brought('one.txt', chapter(2, ['a', 'b']));
    const two = await brought('two.txt', chapter(3, ['b', 'b']));
    expect(await categories(two.id)).to.deep.equal([null, null]);
    const { shown } = (await documentsView(one.id, null))!;
    const to = { ...shown.layout, labels: { Answer: 'key' as const, Skill: 'category' as const } };
    await putRight(one.id, { way: 'hand', edits: [{ op: 'read-as', path: 'one.txt', to }] });
    expect(await rememberDocument(one.id, 'none.txt', 'Chapters')).to.equal(false);
    expect(await rememberDocument(one.id, 'one.txt', 'Chapters')).to.equal(true);
    await settled();
    expect(await categories(two.id)).to.deep.equal(['x', 'y']);
    expect((await documentsView(two.id, null))!.shown.by).to.equal('known');
    const [layout] = (await listKnownLayouts()).filter((l) => l.name === 'Chapters');
    expect(layout!.says).to.equal('questions 1. 2. 3.; choices a. b. c.; key “Answer”');
    expect(await renameLayout(layout!.id, 'Chapters of mine')).to.equal(true);
    const file = RulesFile.parse(JSON.parse(JSON.stringify(await rulesFile())));
    expect(file.layouts.map((l) => l.name)).to.include('Chapters of mine');
    expect(await removeLayout(layout!.id)).to.equal(true);
    await settled();
    expect(await categories(two.id)).to.deep.equal([null, null]);
    // Taken in from a file it holds again.
    expect(await takeRules({ rules: [], tables: [], layouts: file.layouts })).to.equal(file.layouts.length);
    await settled();
    expect(await categories(two.id)).to.deep.equal(['x', 'y']);
    for (const l of await listKnownLayouts()) await removeLayout(l.id);
    await settled();
  });

  it('files that came in together are one source, whose banks all go into a transfer; each stays as it came', async () => {
    const files = [
      await brought('pilot-ch1.txt', chapter(4, ['a', 'b'])),
      await brought('pilot-ch2.txt', chapter(5, ['b', 'a'])),
    ];
    const ids = files.map((f) => f.id);
    expect((await filesNamed([...ids, 'gone'])).map((f) => f.name)).to.deep.equal([
      'pilot-ch1.txt',
      'pilot-ch2.txt',
    ]);
    const id = (await bindTogether(ids, 'pilot'))!;
    await settled();
    const bound = (await packageById(id))!;
    expect([bound.name, bound.summary!.items, bound.summary!.banks]).to.deep.equal(['pilot.zip', 4, 2]);
    expect(await bindTogether(ids, 'pilot'), 'the same files are the same source').to.equal(id);
    expect(await bindTogether([...ids, 'gone'], 'pilot')).to.equal(null);
    const listed = (await listPackages(500, 'file')).map((p) => p.id);
    expect([listed.includes(id), listed.includes(ids[0]!)]).to.deep.equal([true, false]);
    expect((await packageById(ids[0]!))!.summary!.items).to.equal(2);
    const transfer = (await startTransfer({ packageId: id }, null))!;
    expect((await ticksOf(transfer)).filter((t) => t.kind === 'bank')).to.have.length(2);
    // Brought once more by itself, a part is a file of its own again.
    await brought('pilot-ch1.txt', chapter(4, ['a', 'b']));
    expect((await listPackages(500, 'file')).map((p) => p.id)).to.include(ids[0]);
  });

  it('two files of one name are two in it, and more than is taken is refused with words', async () => {
    const a = await brought('same.txt', chapter(6, ['a']));
    const b = await brought('same.txt', chapter(7, ['b']));
    const id = (await bindTogether([a.id, b.id], 'same'))!;
    await settled();
    expect((await documentsView(id, null))!.documents.map((d) => d.path)).to.have.members([
      'same.txt',
      'same (2).txt',
    ]);
    let refused: unknown = null;
    await bindTask({ files: [{ name: 'a', sha256: a.sha256 }], limit: 3 }).catch(
      (e: unknown) => (refused = e),
    );
    expect(refused).to.be.an('error').with.property('name', 'Refusal');
    expect(new BindingTrouble('why').message).to.equal('why');
  });

  it('a package of no document has none to show', async () => {
    const held = await brought('rubric.csv', 'criterion,weight,level 1,points 1\nCourse,1,good,2\n');
    expect(await documentsView(held.id, null)).to.equal(null);
  });
});
