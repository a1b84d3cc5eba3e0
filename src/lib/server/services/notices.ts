import { randomUUID } from 'node:crypto';
import { desc, eq, sql } from 'drizzle-orm';
import nodemailer from 'nodemailer';
import type { NoticeView, SystemAbout } from '../../shared/courses.ts';
import { mailFrom, origin, smtpUrl } from '../config.ts';
import { db, write } from '../db/client.ts';
import { notices, systems } from '../db/schema.ts';
import { announceSubject } from '../jobs/events.ts';

/** Puts a notice in the tray and mails it to whoever the connected systems belong to. */
export async function notify(notice: Pick<NoticeView, 'text' | 'href' | 'tone'>): Promise<void> {
  await write((tx) =>
    tx.insert(notices).values({ id: randomUUID(), at: Date.now(), read: false, ...notice }),
  );
  announceSubject('notices');
  await mail(notice).catch((error: Error) =>
    console.error(`The notice could not be mailed: ${error.message}`),
  );
}

async function mail({ text, href }: Pick<NoticeView, 'text' | 'href'>): Promise<void> {
  if (smtpUrl === null) return;
  const rows = await db.select({ about: systems.about }).from(systems);
  const to = [
    ...new Set(rows.map((r) => (JSON.parse(r.about) as SystemAbout).user.email).filter((e) => e !== '')),
  ];
  if (to.length === 0) return;
  await nodemailer
    .createTransport(smtpUrl)
    .sendMail({ from: mailFrom, to, subject: text.slice(0, 120), text: `${text}\n\n${origin}${href}\n` });
}

export const listNotices = async (limit = 50): Promise<NoticeView[]> =>
  db.select().from(notices).orderBy(desc(notices.at)).limit(limit);

export async function unreadNotices(): Promise<number> {
  const [row] = await db
    .select({ n: sql<number>`count(*)` })
    .from(notices)
    .where(eq(notices.read, false));
  return row?.n ?? 0;
}

export const readNotices = (): Promise<unknown> =>
  write((tx) => tx.update(notices).set({ read: true }).where(eq(notices.read, false)));
