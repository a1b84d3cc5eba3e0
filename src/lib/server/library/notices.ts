import { cut } from '@alforja/core';
import nodemailer from 'nodemailer';
import { mailFrom, origin, smtpUrl } from '../config.ts';
import { onCommit, write, type Transaction } from '../store/database.ts';
import { insertNotice, markRead, type Notice } from '../store/notices.ts';
import { listSystems } from '../store/systems.ts';

const LONGEST_SUBJECT = 120;

/** Puts a notice in the tray, and mails it to whoever the connected systems belong to once it is there. */
export async function notify(tx: Transaction, notice: Notice): Promise<void> {
  await insertNotice(tx, notice);
  onCommit(tx, () => {
    mail(notice).catch((error: Error) => console.error(`The notice could not be mailed: ${error.message}`));
  });
}

async function mail({ text, href }: Notice): Promise<void> {
  if (smtpUrl === null) return;
  const holders = (await listSystems()).map((s) => s.about.user.email);
  const to = [...new Set(holders.filter((e) => e !== ''))];
  if (to.length === 0) return;
  await nodemailer.createTransport(smtpUrl).sendMail({
    from: mailFrom,
    to,
    subject: cut(text, LONGEST_SUBJECT),
    text: `${text}\n\n${origin}${href}\n`,
  });
}

/** Marks every notice as read. */
export const readNotices = (): Promise<unknown> => write(markRead);
