/** Settings of one party: language, whom it signs for, a note, its second step, when it gets its copy. */
import { holdsGate, byLink, calledOf } from '@gatepath/core/packet';
import type { PacketParty, SecondStep } from '@gatepath/core/packet';
import { useSession } from '../../api/hooks';
import { LateInput } from '../../ui/late-input';
import { Card, Choice } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Small, Strong } from '../../ui/text';
import { keysOf } from '@gatepath/core/sure';
import { TEXT } from './words';

const STEPS: { value: SecondStep | 'none'; label: string }[] = [
  { value: 'none', label: TEXT.theLinkIsEnough },
  { value: 'email', label: TEXT.codeByEmail },
  { value: 'phone', label: TEXT.codeByPhone },
  { value: 'code', label: TEXT.accessCode },
];

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function PartyOptions({ party, onChange }: { party: PacketParty; onChange: (p: PacketParty) => void }) {
  const session = useSession();
  const first = calledOf(party);
  /** Leaves out usual values, so that nothing needless is stored. */
  const set = (change: Partial<PacketParty>) => {
    const next = { ...party, ...change };
    for (const key of keysOf(next)) if (next[key] === undefined) delete next[key];
    onChange(next);
  };
  return (
    <Card testID={`options-${first}`}>
      <Strong>{TEXT.onlyFor(first)}</Strong>
      <Small>{TEXT.languageReads(first)}</Small>
      <Choice
        wrap
        label={TEXT.languageFor(first)}
        value={party.language ?? 'en'}
        options={(session.data?.languages ?? []).map((l) => ({ value: l.tag, label: l.name }))}
        onChange={(l) => set({ language: l === 'en' ? undefined : l })}
      />
      <LateInput
        label={TEXT.aCompanyOrTrustSigns(first)}
        value={party.company ?? ''}
        onSave={(company) => set({ company: company.trim() || undefined })}
        testID={`company-${first}`}
      />
      <LateInput
        label={TEXT.inWhatCapacitySignsUnder(first)}
        value={party.capacity ?? ''}
        onSave={(capacity) => set({ capacity: capacity.trim() || undefined })}
        testID={`capacity-${first}`}
      />
      <LateInput
        label={TEXT.aPrivateNote}
        value={party.note ?? ''}
        multiline
        onSave={(note) => set({ note: note.trim() || undefined })}
        testID={`note-${first}`}
      />
      {!holdsGate(party) ? (
        <Switch
          label={TEXT.sendACopyRightAway}
          on={party.copyAt === 'sending'}
          onChange={(on) => set({ copyAt: on ? 'sending' : undefined })}
          testID={`copy-now-${first}`}
        />
      ) : !byLink(party) || party.memberId ? null : (
        <>
          <Small>{TEXT.howProvesTheirIdentityBesides(first)}</Small>
          <Choice
            wrap
            label={TEXT.howProvesTheirIdentity(first)}
            value={party.secondStep ?? 'none'}
            options={STEPS}
            onChange={(s) =>
              set({
                secondStep: s === 'none' ? undefined : s,
                ...(s === 'code' ? {} : { accessCode: undefined, codeKept: undefined }),
              })
            }
          />
          {party.secondStep === 'code' ? (
            <>
              <LateInput
                label={party.codeKept ? TEXT.aNewCode(first) : TEXT.theCodeYouTell(first)}
                value={party.accessCode ?? ''}
                onSave={(accessCode) => accessCode.trim() && set({ accessCode: accessCode.trim() })}
                testID={`access-${first}`}
              />
              {party.codeKept ? <Small>{TEXT.aCodeIsSet(first)}</Small> : null}
            </>
          ) : null}
        </>
      )}
    </Card>
  );
}
