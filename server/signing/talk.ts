/** Questions to the sender, handing over, choosing a language, and sending the agreement's text. */
import type { HandOverBody, QuestionBody, SigningView } from '@gatepath/contract';
import type { Context } from '../context';
import { Letters } from '../packets/letters';
import { notFound } from '../problem';
import { LANGUAGES } from '../words';
import { enter, enterProved } from './entry';
import { actAndView, actAs, openLink } from './service';
import type { Visit } from './visit';

/** Sends a question. The same id again is the same question. */
export function askQuestion(ctx: Context, visit: Visit, body: QuestionBody): Promise<SigningView> {
  return actAndView(ctx, visit, { type: 'ask_question', questionId: body.actId, text: body.text });
}

/** Hands over to someone else; afterwards this link no longer works. */
export async function handOver(ctx: Context, visit: Visit, body: HandOverBody): Promise<void> {
  const { reason, name, email, phone } = body;
  const contact = { name, email, phone };
  await actAs(ctx, visit, await enterProved(ctx, visit), { type: 'hand_over', contact, reason });
}

/**
 * Changes the language, also before the second step: what it asks must be readable.
 *
 * @throws Problem `not-found`
 */
export async function setLanguage(ctx: Context, visit: Visit, language: string): Promise<SigningView> {
  if (!LANGUAGES.some((l) => l.tag === language)) throw notFound('This language');
  const entry = await enter(ctx, visit);
  if (entry.state.status === 'at_gate') await actAs(ctx, visit, entry, { type: 'choose_language', language });
  return openLink(ctx, visit);
}

/** Sends the text about signing electronically to the party. */
export async function sendAgreement(ctx: Context, visit: Visit): Promise<void> {
  const { state, party } = await enterProved(ctx, visit);
  await ctx.packets.alone(state.packetId, ({ tx, row }) =>
    new Letters(ctx, tx, row, state).toParty(party, 'agreement'),
  );
}
