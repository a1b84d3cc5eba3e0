import { join } from 'node:path';
import { foreshore, quayside } from './data.ts';
import { PublisherLibrary } from './library.ts';
import { MailCatcher } from './mail.ts';
import { CourseSystem } from './system.ts';

/**
 * Starts both simulated course systems, the mail catcher and a publisher's library: node --import tsx standins/main.ts [FOLDER]
 * Ports from STANDIN_PORT on (default 4180): the systems, the mail's page, its SMTP, the library.
 */
const first = Number(process.env['STANDIN_PORT'] ?? 4180);
const folder = process.argv[2] ?? null;
const kept = (name: string): string | null => (folder ? join(folder, name) : null);
const pairs = Number(process.env['STANDIN_PAIRS'] ?? 0);
const items = Number(process.env['STANDIN_ITEMS'] ?? 300);

const systems = [
  new CourseSystem(
    await quayside({
      port: first,
      folder: kept('quayside'),
      ...(pairs > 0 ? { programme: { pairs, items } } : {}),
    }),
  ),
  new CourseSystem(await foreshore({ port: first + 1, folder: kept('foreshore') })),
];
for (const system of systems) await system.start();
const mail = await new MailCatcher(first + 3, first + 2).start();
const library = await new PublisherLibrary(first + 4).start();
for (const system of systems) process.stdout.write(`${system.options.name} is at ${system.address}\n`);
process.stdout.write(`The publisher's library is at ${library.address}\n`);
process.stdout.write(`Mail is shown at http://127.0.0.1:${first + 2}\n`);
const stop = async (): Promise<void> => {
  for (const system of systems) await system.stop();
  await mail.stop();
  await library.stop();
  process.exit(0);
};
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());
