import { existsSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';

const Environment = z.object({
  ALFORJA_DATA: z.string().default('./data'),
  ALFORJA_DATABASE_URL: z.string().optional(),
  /** Where mails go out, as an smtp: address; without it there are only notices. */
  ALFORJA_SMTP: z.string().optional(),
  /** Hosts, hosts with ports and ranges inside one's own network that may be asked: course systems, libraries, links. */
  ALFORJA_INSIDE: z.string().default(''),
  ALFORJA_MAIL_FROM: z.string().default('alforja@localhost'),
  /** The most memory that one thread may take for what it reads, in megabytes. */
  ALFORJA_THREAD_MB: z.coerce.number().int().min(256).default(4096),
  /** The folder with the bundles that threads run; without it they run those of the build, or the source in development. */
  ALFORJA_WORKERS: z.string().optional(),
  /** Where people find this application, for links in mails. */
  ORIGIN: z.url().optional(),
  HOST: z.string().default('127.0.0.1'),
  PORT: z.string().default('3000'),
});

const environment = Environment.parse(process.env);

/** The project's folder: chunks of the build are nested, so it is found by walking up to the migrations. */
function projectFolder(): string {
  for (const start of [process.cwd(), dirname(fileURLToPath(import.meta.url))]) {
    for (let at = start; ; at = dirname(at)) {
      if (existsSync(join(at, 'drizzle', 'meta'))) return at;
      if (dirname(at) === at) break;
    }
  }
  throw new Error('The folder with the database migrations (drizzle/) was not found.');
}

export const projectPath = projectFolder();
export const dataPath = resolve(environment.ALFORJA_DATA);
export const filesPath = join(dataPath, 'files');
export const temporaryPath = join(dataPath, 'tmp');
/** The key that tokens of course systems are sealed with. */
export const keyPath = join(dataPath, 'key');
export const migrationsPath = join(projectPath, 'drizzle');

const production = process.env['NODE_ENV'] === 'production';
/** The folder with the bundles that threads run; null where they run the source. */
export const workersPath =
  environment.ALFORJA_WORKERS ?? (production ? join(projectPath, 'build', 'workers') : null);

export const databaseUrl = environment.ALFORJA_DATABASE_URL ?? `file:${join(dataPath, 'alforja.db')}`;
/** The file of the database; null where it is none. */
export const databasePath = databaseUrl.startsWith('file:') ? databaseUrl.slice('file:'.length) : null;
export const MAX_UPLOAD = 200 * 1024 * 1024;

export const insideSetting = environment.ALFORJA_INSIDE;
export const threadMegabytes = environment.ALFORJA_THREAD_MB;
export const smtpUrl = environment.ALFORJA_SMTP ?? null;
export const mailFrom = environment.ALFORJA_MAIL_FROM;
export const host = environment.HOST;
export const port = environment.PORT;
export const originSetting = environment.ORIGIN ?? null;
export const origin = originSetting ?? `http://${host}:${port}`;
