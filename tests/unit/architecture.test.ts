import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { expect } from 'chai';
import { CHECKS, FINDING_CODES, WORDS } from '@alforja/core';

const root = resolve(import.meta.dirname, '../..');

function sources(folder: string, ending = /\.(?:ts|svelte)$/u): string[] {
  return readdirSync(join(root, folder), { withFileTypes: true, recursive: true })
    .filter((e) => e.isFile() && ending.test(e.name))
    .map((e) => relative(root, join(e.parentPath, e.name)));
}

/** What a file imports: package names, or paths from the project's root. */
function importsOf(file: string): string[] {
  const text = readFileSync(join(root, file), 'utf8');
  const found = [
    ...text.matchAll(/(?:from|import)\s*\(?\s*'([^']+)'/gu),
    ...text.matchAll(/import\('([^']+)'\)/gu),
  ];
  return found.map(([, to]) =>
    to!.startsWith('.')
      ? relative(root, resolve(dirname(join(root, file)), to!))
      : to!.replace(/^\$lib/u, 'src/lib'),
  );
}

/** Each floor of core may stand on those named, and on itself. */
const FLOORS: Readonly<Record<string, readonly string[]>> = {
  model: [],
  xml: ['model'],
  intake: ['model', 'xml'],
  content: ['model', 'xml'],
  scoring: ['model'],
  match: ['model'],
  checks: ['model', 'scoring', 'match', 'families'],
  document: ['model', 'xml', 'content', 'intake'],
  layout: ['model', 'content', 'document', 'scoring'],
  formats: ['model', 'xml', 'content', 'intake', 'fit', 'document', 'layout'],
  assemble: ['model', 'scoring'],
  report: ['model', 'scoring', 'xml', 'families', 'compare', 'landing', 'layout', 'edit'],
  fit: ['model', 'scoring'],
  compare: ['model', 'scoring', 'match', 'families'],
  reading: ['model', 'xml', 'intake', 'content', 'document', 'layout', 'formats', 'scoring', 'checks'],
  writing: ['model', 'intake', 'fit', 'formats'],
  find: ['model'],
  families: ['model', 'scoring', 'match'],
  edit: ['model', 'content', 'scoring', 'fit', 'families', 'layout'],
  repair: ['model', 'scoring', 'families', 'assemble', 'checks', 'edit', 'compare', 'formats', 'writing'],
  sheet: ['model', 'scoring', 'edit', 'report'],
  exam: ['model', 'scoring', 'match', 'families', 'assemble', 'compare', 'edit'],
  paper: ['model', 'content', 'xml', 'scoring', 'report'],
  bankfile: ['model', 'intake', 'scoring', 'paper', 'compare', 'reading'],
  making: ['model', 'match', 'families', 'assemble', 'checks', 'edit', 'repair', 'exam', 'report'],
  landing: ['model', 'match', 'compare', 'writing', 'edit'],
  transfer: ['model', 'scoring', 'match', 'compare', 'report', 'writing', 'landing'],
};

/**
 * Each floor of the server may stand on those named, and on itself; `jobs` is where handlers meet the runner.
 */
const SERVER_FLOORS: Readonly<Record<string, readonly string[]>> = {
  config: [],
  front: ['config'],
  once: ['store'],
  store: ['config'],
  connectors: ['config'],
  work: ['store'],
  runner: ['config', 'store', 'work'],
  library: ['config', 'store', 'connectors', 'runner', 'work'],
  transfer: ['store', 'connectors', 'library', 'runner', 'work'],
  keeping: ['config', 'store'],
  jobs: ['store', 'library', 'transfer', 'runner', 'keeping'],
};
const SERVER = 'src/lib/server/';
/** The file or folder under the server that a path belongs to. */
const floorOf = (path: string): string => path.slice(SERVER.length).split('/')[0]!.replace(/\.ts$/u, '');

describe('the house', () => {
  it('lets imports in core run downward only', () => {
    const upward = sources('core/src').flatMap((file) => {
      const floor = file.split('/')[2]!;
      if (!Object.hasOwn(FLOORS, floor))
        return file === 'core/src/index.ts' || file.endsWith('.d.ts') ? [] : [file];
      return importsOf(file)
        .filter((to) => to.startsWith('core/src/'))
        .filter((to) => {
          const other = to.split('/')[2]!;
          return other !== floor && !FLOORS[floor]!.includes(other);
        })
        .map((to) => `${file} -> ${to}`);
    });
    expect(upward).to.deep.equal([]);
  });

  it('keeps core free of Node, the browser, the database and the interface', () => {
    const foreign = sources('core/src').flatMap((file) =>
      importsOf(file)
        .filter((to) => /^(?:node:|svelte|drizzle|@libsql|src\/|cli\/|core\/node)/u.test(to))
        .map((to) => `${file} -> ${to}`),
    );
    expect(foreign).to.deep.equal([]);
  });

  it('lets the application stand on core, and screens on plain data', () => {
    const rules: [folder: string, forbidden: RegExp][] = [
      ['src/lib/ui', /^(?:src\/lib\/server|src\/routes|core\/|demo\/)/u],
      ['src/lib/shared', /^(?:src\/lib\/(?:server|ui)|src\/routes)/u],
      ['src/lib/server', /^(?:src\/lib\/ui|src\/routes|core\/|demo\/)/u],
      ['src/routes', /^(?:core\/|cli\/|drizzle-orm|@libsql)/u],
      // The command line looks after data folders by the same means as the application.
      ['cli/src', /^(?:src\/(?!lib\/server\/keeping\/index\.ts$)|core\/|demo\/)/u],
      // The simulated systems read and write by themselves, so that what both would misread shows.
      ['standins', /^(?:src\/|core\/|cli\/|@alforja\/)/u],
      ['demo', /^(?:src\/|core\/|cli\/|standins\/|@alforja\/)/u],
    ];
    const upward = rules.flatMap(([folder, forbidden]) =>
      sources(folder).flatMap((file) =>
        importsOf(file)
          .filter((to) => forbidden.test(to))
          .map((to) => `${file} -> ${to}`),
      ),
    );
    expect(upward).to.deep.equal([]);
  });

  it('lets imports in the server run downward only', () => {
    const upward = sources('src/lib/server').flatMap((file) =>
      importsOf(file)
        .filter((to) => to.startsWith(SERVER))
        .filter((to) => {
          const [mine, other] = [floorOf(file), floorOf(to)];
          return mine !== other && !(SERVER_FLOORS[mine] ?? []).includes(other);
        })
        .map((to) => `${file} -> ${to}`),
    );
    expect(upward).to.deep.equal([]);
    expect([...new Set(sources('src/lib/server').map(floorOf))].sort()).to.deep.equal(
      Object.keys(SERVER_FLOORS).sort(),
    );
  });

  it('lets nobody but the store touch rows', () => {
    const touching = [...sources('src'), ...sources('cli/src')]
      .filter((file) => !file.startsWith(`${SERVER}store/`))
      .filter((file) => importsOf(file).some((to) => /drizzle-orm|@libsql|store\/schema/u.test(to)));
    expect(touching).to.deep.equal([]);
  });

  it('has one file for each table of the database', () => {
    const schema = readFileSync(join(root, `${SERVER}store/schema.ts`), 'utf8');
    const tables = [...schema.matchAll(/export const (\w+) = sqliteTable/gu)].map(([, name]) => name!);
    const owners = tables.map((table) => {
      const writes = new RegExp(`\\.(?:insert|update|delete)\\(${table}\\)`, 'u');
      return sources(`${SERVER}store`).filter((f) => writes.test(readFileSync(join(root, f), 'utf8')));
    });
    expect(owners).to.deep.equal(tables.map((table) => [`${SERVER}store/${table}.ts`]));
  });

  it('reads documents by their codecs only, never by a cast', () => {
    const casting = [...sources('src'), ...sources('cli/src'), ...sources('core/src')].filter((file) =>
      /JSON\.parse\([^;]*?\)+ as /u.test(readFileSync(join(root, file), 'utf8')),
    );
    expect(casting.filter((f) => !f.startsWith('src/lib/ui/'))).to.deep.equal([]);
  });

  it('lets routes ask library and transfer, and read the store, but not write it', () => {
    const writing = sources('src/routes').flatMap((file) =>
      importsOf(file)
        .filter((to) => /lib\/server\/(?:store\/(?:database|schema|codec)|work|runner)/u.test(to))
        .map((to) => `${file} -> ${to}`),
    );
    expect(writing).to.deep.equal([]);
  });

  it('has no cycles of modules in core', () => noCycles('core/src'));
  it('has no cycles of modules in the server', () => noCycles('src/lib/server'));

  function noCycles(folder: string): void {
    const graph = new Map(sources(folder).map((f) => [f, importsOf(f).filter((t) => t.startsWith(folder))]));
    const done = new Set<string>();
    const visit = (file: string, path: readonly string[]): void => {
      if (path.includes(file))
        throw new Error(`cycle: ${[...path.slice(path.indexOf(file)), file].join(' -> ')}`);
      if (done.has(file)) return;
      for (const next of graph.get(file) ?? []) visit(next, [...path, file]);
      done.add(file);
    };
    for (const file of graph.keys()) visit(file, []);
  }

  it('has words for every finding, and uses every code', () => {
    expect(Object.keys(WORDS).sort()).to.deep.equal([...FINDING_CODES].sort());
    const text = [...sources('core/src'), ...sources('cli/src'), ...sources('src')]
      .filter((f) => !/model\/codes\.ts|report\/words\.ts/u.test(f))
      .map((f) => readFileSync(join(root, f), 'utf8'))
      .join('\n');
    expect(FINDING_CODES.filter((code) => !text.includes(`'${code}'`))).to.deep.equal([]);
  });

  it('has no component that is too long to hold in the head', () => {
    const long = sources('src', /\.svelte$/u).filter(
      (file) => readFileSync(join(root, file), 'utf8').split('\n').length > 201,
    );
    expect(long).to.deep.equal([]);
  });

  it('has one file for each check, named after its code', () => {
    const files = sources('core/src/checks').map((f) => f.split('/').pop()!.replace('.ts', ''));
    // Exact and near are two thresholds of one search.
    files.push('near-duplicate-items');
    expect(
      CHECKS.map((c) => c.code)
        .filter((code) => !files.includes(code))
        .sort(),
    ).to.deep.equal([]);
  });
});
