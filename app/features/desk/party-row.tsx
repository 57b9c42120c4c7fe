/** A party on the path of a draft: what it does, and a menu to change that. */
import { useState } from 'react';
import {
  type Act,
  ACT_FACTS,
  ACTS,
  type Gate,
  type PacketParty,
  holdsGate,
  puts,
  calledOf,
} from '@gatepath/core/packet';
import { listWords, sideLabel } from '@gatepath/core/text';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, IconButton } from '../../ui/pieces';
import { Body, Small } from '../../ui/text';
import { slotToken } from '../../ui/slot-token';
import { Token } from '../../ui/token';
import { PartyOptions } from './party-options';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

interface Props {
  party: PacketParty;
  gates: Gate[];
  onGate: (id: string | null) => void;
  onAct: (act: Act) => void;
  onChange: (party: PacketParty) => void;
  onDrop: () => void;
  documents: { id: string; name: string; gets: boolean }[];
  onDocument: (id: string) => void;
}

export function PartyRow(props: Props) {
  const { party, documents } = props;
  const [open, setOpen] = useState(false);
  const without = documents.filter((d) => !d.gets);
  const does = `${sideLabel(party.side, party.ordinal)}, ${ACT_FACTS[party.act].does}`;
  return (
    <Stack gap={8}>
      <Row gap={8}>
        <Token name={party.name} letters={slotToken(party)} ink={party.ink} size={28} />
        <Stack grow>
          <Body>{party.name}</Body>
          <Small>{[does, ...particulars(party)].join(' · ')}</Small>
          {without.length ? <Small>{TEXT.doesNotGet(listWords(without.map((d) => d.name)))}</Small> : null}
        </Stack>
        <PartyMenu {...props} onOptions={() => setOpen(true)} />
      </Row>
      {open ? (
        <>
          <PartyOptions party={party} onChange={props.onChange} />
          <Button kind="quiet" onPress={() => setOpen(false)} fit>
            {TEXT.doneWith(calledOf(party))}
          </Button>
        </>
      ) : null}
    </Stack>
  );
}

function PartyMenu({
  party,
  gates,
  onGate,
  onAct,
  onDrop,
  documents,
  onDocument,
  onOptions,
}: Props & { onOptions: () => void }) {
  const first = calledOf(party);
  return (
    <DropMenu
      anchor={(open) => (
        <IconButton name="chevron-down" label={TEXT.changeWhatDoesOrWhere(party.name)} onPress={open} />
      )}
    >
      {ACTS.filter((a) => a !== party.act).map((a) => (
        <MenuItem
          key={a}
          title={(puts({ act: a }) ? TEXT.doesThis : TEXT.onlyDoesThis)(first, ACT_FACTS[a].does)}
          onPress={() => onAct(a)}
        />
      ))}
      {holdsGate(party)
        ? gates.map((g, i) =>
            g.partyIds.includes(party.id) ? null : (
              <MenuItem key={g.id} title={TEXT.toGate(i + 1)} onPress={() => onGate(g.id)} />
            ),
          )
        : null}
      {documents.length > 1
        ? documents.map((d) => (
            <MenuItem
              key={d.id}
              title={d.gets ? TEXT.leaveOut(d.name) : TEXT.giveToo(d.name)}
              onPress={() => onDocument(d.id)}
            />
          ))
        : null}
      <MenuItem title={TEXT.languageCompanyNoteCode} onPress={onOptions} />
      <MenuItem title={TEXT.removeFromThePacket} onPress={onDrop} />
    </DropMenu>
  );
}

/** Returns a party's settings that are not the usual ones, in a few words. */
function particulars(p: PacketParty): string[] {
  return [
    p.capacity ?? '',
    p.company ? TEXT.forCompany(p.company) : '',
    p.language ? ({ es: TEXT.inSpanish, vi: TEXT.inVietnamese }[p.language] ?? TEXT.inWord(p.language)) : '',
    p.secondStep
      ? { code: TEXT.accessCodeWithin, email: TEXT.codeByEmailWithin, phone: TEXT.codeByPhoneWithin }[p.secondStep]
      : '',
    p.copyAt === 'sending' ? TEXT.atOnce : '',
    p.note ? TEXT.ownNote : '',
  ].filter(Boolean);
}
