import { build, install, run } from './setup.mjs';
import { startServer } from './server.mjs';
import { startStandins } from './standins.mjs';

// One command from a fresh clone to a running demo: install, build, fill, start.
const port = Number(process.env.PORT ?? 4173);
install();
build();
const data = process.env.ALFORJA_DATA ?? './data';
const standins = await startStandins({ port: port + 10, folder: `${data}/standins`, quiet: true });
const { quayside, foreshore, mail, library, smtp } = standins.addresses;
const inside = [quayside, foreshore, library].map((address) => new URL(address).host).join();
const { child, base } = await startServer({ port, data, smtp, inside });
run(process.execPath, ['--import', 'tsx', 'demo/fill.ts', base, quayside, foreshore, library]);
console.log(`
Alforja is at ${base}
Two simulated course systems to look at: Quayside ${quayside}, Foreshore ${foreshore}; mails are shown at ${mail}
A publisher's library to look at: ${library}
The demo's packages, to drop yourself, are in data/demo-packages. Stop with Ctrl+C.`);
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    standins.child.kill();
    child.kill(signal);
  });
child.on('exit', (code) => {
  standins.child.kill();
  process.exit(code ?? 0);
});
