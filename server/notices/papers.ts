/** The papers of a household before and after they are sent, and letters for people without an address. */
import { dayOf } from '@gatepath/core/calendar';
import { hasDocument } from '@gatepath/core/packet';
import { documentsOf, partyOf, type PacketState } from '@gatepath/core/routing';
import { calendarDay, say } from '@gatepath/core/words';
import type { Context } from '../context';
import type { Member } from '../firm/queries';
import type { LetterTask } from '../typesetting/letters';
import { notFound, Problem } from '../problem';
import { soFar } from '../sealed-copies/so-far';
import { workOut } from '../shelf/work-out';
import { wordsOf } from '../words';
import * as q from './queries';
import { noticeOr404 } from './service';

/** Maximum number of letters per file: they are printed in portions. */
const LETTERS_A_FILE = 100;

/**
 * Returns a household's papers in one file, as they will be or were sent.
 *
 * @throws Problem `not-found`
 */
export async function paperOfRow(
  ctx: Context,
  id: string,
  rowId: string,
  member: Member,
): Promise<{ name: string; bytes: Uint8Array }> {
  const db = ctx.database.pool;
  const notice = await noticeOr404(db, id);
  const row = await q.homeById(db, id, rowId);
  if (!row) throw notFound('This row');
  const name = `${notice.name}, ${row.home}.pdf`;
  if (row.packet_id) {
    const { state } = await ctx.packets.look(row.packet_id);
    if (state) return { name, bytes: await joined(ctx, await filesOf(ctx, state, null), row.packet_id) };
  }
  if (!row.deal_id) throw notFound('The home of this row');
  const values = { ...notice.said, ...row.said };
  const store = { get: (key: string) => row.papers[key], set: () => undefined };
  const { forms } = await workOut(ctx, row.deal_id, notice.kit_id, { name: notice.name, values }, member, {
    before: store,
    isNotice: true,
  });
  const files = forms.map((f) => ({ file: ctx.files.fileOf(f.document.sha256) }));
  return { name, bytes: await joined(ctx, files, row.deal_id) };
}

type Files = LetterTask['letters'][number]['files'];

const joined = (ctx: Context, files: Files, owner: string): Promise<Uint8Array> =>
  ctx.work.run('letters', { letters: [{ cover: null, files }] }, owner);

/** Returns the papers of a packet as a party has them, with the sender's labels. */
async function filesOf(ctx: Context, state: PacketState, partyId: string | null): Promise<Files> {
  const party = partyId ? partyOf(state.plan, partyId) : undefined;
  const out: Files = [];
  for (const d of documentsOf(state)) {
    if (party && !hasDocument(party, d.id)) continue;
    const now = await soFar(ctx, state, partyId ?? '', d);
    out.push('bytes' in now ? now : { file: ctx.files.fileOf(now.sha256) });
  }
  return out;
}

/**
 * Returns the letters to mail: each starts with an address page with a slip to sign, followed by its papers.
 *
 * @throws Problem `nothing-to-send`
 */
export async function lettersOf(ctx: Context, id: string): Promise<{ name: string; bytes: Uint8Array }> {
  const db = ctx.database.pool;
  const notice = await noticeOr404(db, id);
  const wanted = await q.lettersOf(db, id, [], LETTERS_A_FILE);
  if (!wanted.length) throw new Problem('nothing-to-send', 'There is no letter to mail.');
  const firmName = (await ctx.firm())?.name ?? '';
  const letters: LetterTask['letters'] = [];
  for (const l of wanted) {
    const { state } = await ctx.packets.look(l.packet_id);
    const party = state && partyOf(state.plan, l.party_id);
    if (!state || !party) continue;
    const words = wordsOf(party.language);
    const enclosed = documentsOf(state).filter((d) => hasDocument(party, d.id));
    const day = calendarDay(words, dayOf(ctx.clock.now().toISOString(), state.plan.timeZone), true);
    const parts = { firmName, name: party.name, packetName: state.plan.packetName, dealName: state.plan.dealName };
    letters.push({
      cover: {
        from: firmName,
        to: [party.name, ...addressLines(state.plan.dealName)],
        day,
        subject: state.plan.packetName,
        text: [say(words, 'letter.lead', parts), ...(state.plan.message ? [state.plan.message] : [])],
        enclosed: enclosed.map((d) => say(words, 'record.pages', { name: d.name, n: d.pages.length })),
        enclosedWord: say(words, 'letter.enclosed'),
        slip: say(words, 'letter.slip', parts),
        signWord: say(words, 'kind.signature'),
        dateWord: say(words, 'paper.date'),
      },
      files: await filesOf(ctx, state, l.party_id),
    });
  }
  const bytes = await ctx.work.run('letters', { letters }, id);
  return { name: `${notice.name}, letters.pdf`, bytes };
}

/** Returns "Unit 4, 4 Basin Street, Tern Lock" as lines of an address. */
const addressLines = (dealName: string) => dealName.split(', ').slice(0, 5);
