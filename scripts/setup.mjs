import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

/** Runs a command in sight of the user; ends this process with its status when it fails. */
export function run(command, args, env = {}) {
  const { status } = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, ...env } });
  if (status !== 0) process.exit(status ?? 1);
}

/** Runs an npm script: its output as it comes (`loud`), or in one piece when it has ended. @returns its status */
const runScript = (script, loud) =>
  new Promise((done) => {
    const child = spawn('npm', ['run', '--silent', script], { stdio: loud ? 'inherit' : 'pipe' });
    const said = [];
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (part) => said.push(part));
    child.on('error', (error) => said.push(Buffer.from(`${error.message}\n`)));
    child.on('close', (code) => {
      if (!loud) process.stdout.write(`--- ${script}\n${Buffer.concat(said).toString()}`);
      done(code ?? 1);
    });
  });

/**
 * Runs lists of npm scripts side by side, those of one list one after the other; ends this process with the first
 * status that is not 0, once every list has come to its end or to a script that failed. The first list is followed
 * as it runs; of the others each script's output comes in one piece.
 */
export async function runBeside(...lists) {
  const codes = await Promise.all(
    lists.map(async (scripts, at) => {
      for (const script of scripts) {
        const code = await runScript(script, at === 0);
        if (code !== 0) return code;
      }
      return 0;
    }),
  );
  const failed = codes.find((code) => code !== 0);
  if (failed !== undefined) process.exit(failed);
}

const STAMP = 'node_modules/.installed';

/** npm ci, unless what the lock names is installed already. */
export function install() {
  const lock = readFileSync('package-lock.json', 'utf8');
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === lock) return;
  run('npm', ['ci', '--no-audit', '--no-fund']);
  writeFileSync(STAMP, lock);
}

/** Debian's Chromium, for the tests of the real interface. */
export function installChromium() {
  if (existsSync('/usr/bin/chromium')) return;
  const asRoot = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) =>
    run([...asRoot, 'apt-get'][0], [...asRoot.slice(1), ...(asRoot.length > 0 ? ['apt-get'] : []), ...args], {
      DEBIAN_FRONTEND: 'noninteractive',
    });
  apt('update', '-q');
  apt('install', '-y', '-q', 'chromium');
}

/** Builds the server and the job worker. */
export function build() {
  run('npm', ['run', '--silent', 'build']);
}
