import { createTransport } from "nodemailer";
import type pg from "pg";
import { database, row, rows } from "./database";
import { environment } from "./environment";
import { logged } from "./log";

export interface Letter {
  readonly id: string;
  readonly address: string;
  readonly subject: string;
  readonly body: string;
  readonly made_at: Date;
  readonly sent_at: Date | null;
  readonly trouble: string | null;
}

/** Puts a letter into the outbox; it goes out by SMTP where the environment names a server, and can be read there. */
export const post = (
  letter: { readonly personId?: string; readonly address: string; readonly subject: string; readonly body: string },
  client: pg.Pool | pg.PoolClient = database(),
) =>
  rows(
    "insert into outbox (person_id, address, subject, body) values ($1, $2, $3, $4)",
    [letter.personId ?? null, letter.address, letter.subject, letter.body],
    client,
  );

export const letters = () =>
  rows<Letter>(
    "select id, address, subject, body, made_at, sent_at, trouble from outbox order by made_at desc limit 100",
  );

const MOST_TRIES = 5;

/** Sends what waits, where there is a mail server. One process sends a letter; a lost connection tries it again. */
export async function sendLetters(): Promise<number> {
  const { SMTP_URL, MAIL_FROM } = environment();
  if (!SMTP_URL) return 0;
  const transport = createTransport(SMTP_URL, { from: MAIL_FROM });
  let sent = 0;
  for (;;) {
    const letter = await row<Letter>(
      `update outbox set tries = tries + 1 where id = (
         select id from outbox where sent_at is null and tries < ${MOST_TRIES} order by tries, made_at
         limit 1 for update skip locked) returning *`,
    );
    if (!letter) return sent;
    try {
      await transport.sendMail({ to: letter.address, subject: letter.subject, text: letter.body });
      await rows("update outbox set sent_at = now(), trouble = null where id = $1", [letter.id]);
      sent++;
    } catch (e) {
      await rows("update outbox set trouble = $2 where id = $1", [letter.id, `It was not sent. (${logged(e)})`]);
      return sent;
    }
  }
}
