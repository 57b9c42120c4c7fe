import { type SetupBody, NOTICES } from '@gatepath/contract';
import { IANAZone } from 'luxon';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import { addSampleRules } from '../deals/rules';
import { codeOf } from '../errors';
import { hashPassword } from '../firm/password';
import * as q from '../firm/queries';
import { startSession } from '../firm/service';
import { setupTokenWanted, isSetupToken } from '../firm/setup-token';
import { newId } from '../ids';
import { topics } from '../live/live';
import { Problem } from '../problem';

/** Sets up the firm and its first member; only possible once. @throws Problem `setup-token`, `set-up`, `time-zone` */
export async function setUpFirm(
  ctx: Context,
  body: SetupBody,
  browser: string,
): Promise<{ member: q.Member; token: string }> {
  if (setupTokenWanted(ctx) && !isSetupToken(ctx, body.token ?? ''))
    throw new Problem('setup-token', 'Type the set-up code that the server printed when it was started.', {
      fields: { token: 'This is not the code that the server printed.' },
    });
  if (!IANAZone.isValidZone(body.timeZone))
    throw new Problem('time-zone', `“${body.timeZone}” is not a time zone we know. Choose one like America/New_York.`, {
      fields: { timeZone: 'Choose a time zone from the list.' },
    });
  const password_hash = await hashPassword(body.password);
  const at = ctx.clock.now();
  const taken = () => new Problem('set-up', 'This server already has a firm. Sign in instead.');
  const member = await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    if (await q.findFirm(db)) throw taken();
    afterCommit(() => ctx.live.notify(topics.firm()));
    const firm = { id: newId(), name: body.firmName, time_zone: body.timeZone };
    await q.insertFirm(db, { ...firm, at });
    await addSampleRules(db, at, true);
    const m = { id: newId(), firm_id: firm.id, name: body.name, email: body.email, role: 'owner' as const };
    await q.insertMember(db, { ...m, password_hash, at });
    return { ...m, notices: NOTICES.filter((n) => n !== 'asked' && n !== 'opened'), digest: false };
  }).catch((error: unknown) => {
    // Two who set up at once: the database lets one of them.
    throw codeOf(error) === '23505' ? taken() : error;
  });
  return { member, token: await startSession(ctx, member.id, browser) };
}
