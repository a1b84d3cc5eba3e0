import { build, install, run } from './setup.mjs';
import { startServer } from './server.mjs';

// One command from a fresh clone to a running demo: install, build, fill, start.
const port = Number(process.env.PORT ?? 4173);
install();
build();
const { child, base } = await startServer({ port, data: process.env.ALFORJA_DATA ?? './data' });
run(process.execPath, ['--import', 'tsx', 'demo/fill.ts', base]);
console.log(
  `\nAlforja is at ${base}\nThe demo's packages, to drop yourself, are in data/demo-packages. Stop with Ctrl+C.`,
);
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
child.on('exit', (code) => process.exit(code ?? 0));
