import { createTransport } from "nodemailer";
import type pg from "pg";
import { database, row, rows } from "../database";
import { environment } from "../environment";
import { log } from "../log";

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

/** So long a letter is tried, days; then whoever looks after the server sees that it was given up. */
const TRIED_DAYS = 3;
/** Between two tries: a minute at first, twice as long each time, at most so many minutes. */
const LONGEST_PAUSE = 180;
/** Who has taken a letter has so long to send it, minutes. */
const CLAIM = 5;
const WAITS = `sent_at is null and made_at > now() - interval '${TRIED_DAYS} days'`;

export const letters = () =>
  rows<Letter>(
    `select id, address, subject, body, made_at, sent_at,
       case when sent_at is null and not (${WAITS}) then concat_ws(' ', 'Given up after ${TRIED_DAYS} days.', trouble)
       else trouble end as trouble
     from outbox order by made_at desc limit 100`,
  );

type Taken = Letter & { readonly tries: number };

/** Takes the next letter that is due: no other process sends it meanwhile. */
const take = () =>
  row<Taken>(
    `update outbox set tries = tries + 1, next_at = now() + interval '${CLAIM} minutes' where id = (
       select id from outbox where ${WAITS} and next_at <= now() order by next_at limit 1 for update skip locked)
     returning *`,
  );

/** How letters are sent; a server for mail, or what stands for one in tests. */
export type Send = (letter: { to: string; subject: string; text: string }) => Promise<unknown>;

/**
 * Sends what is due, each letter once: what is refused or finds no server is tried again after a growing pause, for
 * three days, and says why it waits. @returns how many were sent
 */
export async function sendLetters(send: Send | undefined = mailServer()): Promise<number> {
  if (!send) return 0;
  let sent = 0;
  for (let letter = await take(); letter; letter = await take()) {
    try {
      await send({ to: letter.address, subject: letter.subject, text: letter.body });
      await rows("update outbox set sent_at = now(), trouble = null where id = $1", [letter.id]);
      sent++;
    } catch (e) {
      const pause = Math.min(2 ** (letter.tries - 1), LONGEST_PAUSE);
      await rows("update outbox set trouble = $2, next_at = now() + make_interval(mins => $3) where id = $1", [
        letter.id,
        refusalOf(e),
        pause,
      ]);
    }
  }
  return sent;
}

function mailServer(): Send | undefined {
  const { SMTP_URL, MAIL_FROM } = environment();
  if (!SMTP_URL) return undefined;
  const transport = createTransport(SMTP_URL, { from: MAIL_FROM });
  return (letter) => transport.sendMail(letter);
}

/** Why a letter was not sent: what the server for mail answered, which may name the address; the log does not. */
function refusalOf(e: unknown): string {
  const { code, responseCode, response } = (e ?? {}) as { code?: string; responseCode?: number; response?: string };
  log.warn({ code, responseCode }, "a letter was not sent");
  if (response) return `Not sent yet. The server for mail says: ${response.slice(0, 200)}`;
  return `Not sent yet: the server for mail cannot be reached${code ? ` (${code})` : ""}.`;
}
