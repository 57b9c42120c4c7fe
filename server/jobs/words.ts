/** What a job was about, in words, for the Firm screen. */
import type { Db } from '../db/pool';
import type { JobName } from './jobs';

const nameOf = async (db: Db, sql: string, id: string, other: string) =>
  (await db.query<{ name: string }>(sql, [id])).rows[0]?.name ?? other;
const packet = (db: Db, id: string) => nameOf(db, 'select name from packet where id = $1', id, 'a packet');
const document = (db: Db, id: string) => nameOf(db, 'select name from document where id = $1', id, 'a paper');
const person = (db: Db, id: string) => nameOf(db, 'select to_name as name from message where id = $1', id, 'someone');

const WORDS: Record<JobName, (db: Db, id: string) => Promise<string>> = {
  mail: async (db, id) => `A message to ${await person(db, id)} could not be sent.`,
  seal: async (db, id) => `The papers of “${await packet(db, id)}” could not be sealed.`,
  read: async (db, id) => `“${await document(db, id)}” could not be read.`,
  scan: async (db, id) => `The words of “${await document(db, id)}” could not be recognized.`,
  gaps: async (db, id) => `The gaps of “${await document(db, id)}” could not be found.`,
  tick: async (db, id) => `Nudges and the last day of “${await packet(db, id)}” could not be handled.`,
  digest: async () => 'A daily summary could not be written.',
  calendar: async () => 'The calendar could not be processed.',
  snapshot: async (db, id) =>
    `A snapshot of the log of “${await packet(db, id)}” could not be saved. Nothing is missing.`,
  deal: async (db, id) =>
    `What “${await nameOf(db, 'select address as name from deal where id = $1', id, 'a deal')}” needs could not be computed.`,
  rules: async () => 'The changed rules could not be applied to the open deals.',
  binder: async (db, id) =>
    `The binder of “${await nameOf(db, 'select address as name from deal where id = $1', id, 'a deal')}” could not be made.`,
  notice: async (db, id) =>
    `The notice “${await nameOf(db, 'select name from notice where id = $1', id, 'to many homes')}” could not continue.`,
  form: async (db, id) =>
    `The places of the form “${await nameOf(db, 'select name from shelf_item where id = $1', id, 'a form')}” could not be read.`,
  remember: async (db, id) => `“${await document(db, id)}” could not be compared with papers sent before.`,
  abstract: async (db, id) => `What “${await document(db, id)}” says about its deal could not be read.`,
  memory: async () => 'Papers sent before could not be compared with each other.',
  tidy: async () => 'Unused files could not be deleted.',
};

/** Returns what failed, as a sentence. */
export function workInWords(db: Db, name: JobName, id: string): Promise<string> {
  return WORDS[name](db, id);
}
