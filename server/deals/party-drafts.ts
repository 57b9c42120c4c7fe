/** Corrections of a person in a deal's drafts. */
import { applyEdits } from '@gatepath/core/packet';
import type { Db } from '../db/pool';
import { draftOf, draftsWithParty, saveDraft } from '../packets/queries';
import type { PartyRow } from '../deal-records/party-queries';

/**
 * Corrects a person in every draft of their deal: name, addresses, company, side and number. What the draft itself
 * says about them (act, gate, note, language) is unchanged.
 *
 * @returns the packets whose drafts were corrected
 */
export async function correctInDrafts(db: Db, party: PartyRow): Promise<string[]> {
  const ids = await draftsWithParty(db, party.deal_id, party.id);
  for (const packetId of ids) {
    const { draft, version } = await draftOf(db, packetId);
    const before = draft.parties.find((p) => p.id === party.id);
    if (!before) continue;
    const { company: _company, capacity: _capacity, ...rest } = before;
    const item = {
      ...rest,
      name: party.name,
      email: party.email,
      phone: party.phone,
      side: party.side,
      ordinal: party.ordinal,
      ...(party.company ? { company: party.company } : {}),
      ...(party.capacity ? { capacity: party.capacity } : {}),
    };
    await saveDraft(db, packetId, applyEdits(draft, [{ op: 'put', list: 'parties', item }]), version + 1);
  }
  return ids;
}
