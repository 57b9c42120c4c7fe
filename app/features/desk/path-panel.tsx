/** The path of a draft: gates with their parties, the documents, and who does what. */
import { useState } from 'react';
import { View } from 'react-native';
import { Menu } from 'react-native-paper';
import {
  type Act,
  type DraftEdit,
  type Gate,
  type PacketParty,
  type PathPattern,
  editsToDropParty,
  hasDocument,
  pathOf,
  holdsGate,
  puts,
  ACT_FACTS,
  ACTS,
} from '@gatepath/core/packet';
import { firstName, listWords, sideLabel } from '@gatepath/core/text';
import { newId } from '../../api/client';
import { useSession } from '../../api/hooks';
import { GatePost } from '../../ui/gate';
import { usePalette } from '../../ui/hooks';
import { DropMenu } from '../../ui/menu';
import { Button, IconButton } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body, Heading, Small, Strong } from '../../ui/text';
import { Token } from '../../ui/token';
import { DocumentsCard, ThrowAway, WordsCard } from './packet-cards';
import { PartyOptions } from './party-options';
import { ScheduleCard } from './schedule-card';
import type { Desk } from './use-desk';
import { itemAt } from '@gatepath/core/sure';

const PATTERNS: { value: PathPattern; label: string }[] = [
  { value: 'by_side', label: 'Sellers, then broker, then buyers' },
  { value: 'together', label: 'All at once' },
  { value: 'one_by_one', label: 'One after another' },
];

export function PathPanel({ desk }: { desk: Desk }) {
  const p = usePalette();
  const { draft, edit } = desk;
  const me = useSession().data?.member ?? null;
  const putGate = (gate: Gate, index?: number): DraftEdit => ({ op: 'put', list: 'gates', item: gate, index });
  const takePattern = (pattern: PathPattern) =>
    edit([
      ...draft.gates.map((g): DraftEdit => ({ op: 'drop', list: 'gates', id: g.id })),
      ...pathOf(pattern, draft.parties, newId).map((g) => putGate(g)),
    ]);
  const moveTo = (party: PacketParty, gateId: string | null) => {
    const out = draft.gates.filter((g) => g.partyIds.includes(party.id) && g.id !== gateId);
    const to = draft.gates.find((g) => g.id === gateId);
    edit([
      ...out.map((g) => putGate({ ...g, partyIds: g.partyIds.filter((x) => x !== party.id) })),
      ...(to && !to.partyIds.includes(party.id) ? [putGate({ ...to, partyIds: [...to.partyIds, party.id] })] : []),
    ]);
  };
  const setAct = (party: PacketParty, act: Act) => {
    const gates = !holdsGate({ act }) ? draft.gates.filter((g) => g.partyIds.includes(party.id)) : [];
    edit([
      { op: 'put', list: 'parties', item: { ...party, act } },
      ...gates.map((g) => putGate({ ...g, partyIds: g.partyIds.filter((x) => x !== party.id) })),
    ]);
  };
  const known = new Set(draft.gates.flatMap((g) => g.partyIds));
  const off = draft.parties.filter((x) => !known.has(x.id));
  const addable = desk.packet.dealParties.filter((x) => !draft.parties.some((y) => y.id === x.id));
  const row = (party: PacketParty) => (
    <PartyRow
      key={party.id}
      party={party}
      gates={draft.gates}
      onGate={(g) => moveTo(party, g)}
      onAct={(a) => setAct(party, a)}
      onChange={(item) => edit([{ op: 'put', list: 'parties', item }])}
      onDrop={() => edit(editsToDropParty(draft, party.id))}
      documents={draft.documents.map((d) => ({
        id: d.id,
        name: desk.packet.documents.find((x) => x.id === d.id)?.name ?? 'Document',
        gets: hasDocument(party, d.id),
      }))}
      onDocument={(id) => {
        const all = draft.documents.map((d) => d.id);
        const gets = all.filter((d) => (d === id ? !hasDocument(party, d) : hasDocument(party, d)));
        const { only: _only, ...rest } = party;
        // Who gets everything has no list, so that a document added later comes along.
        edit([{ op: 'put', list: 'parties', item: gets.length === all.length ? rest : { ...rest, only: gets } }]);
      }}
    />
  );
  return (
    <View style={{ gap: 12 }}>
      <Heading>Path</Heading>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {PATTERNS.map((x) => (
          <Button
            key={x.value}
            onPress={() => takePattern(x.value)}
            testID={`path-${x.value}`}
            style={{ minHeight: 44, paddingHorizontal: 12 }}
          >
            {x.label}
          </Button>
        ))}
      </View>
      {draft.gates.map((gate, i) => {
        const here = gate.partyIds.flatMap((id) => draft.parties.find((x) => x.id === id) ?? []);
        return (
          <View key={gate.id} testID="gate" style={{ flexDirection: 'row', gap: 10 }}>
            <View style={{ alignItems: 'center' }}>
              <GatePost state={i === 0 ? 'lit' : 'closed'} n={i + 1} />
              {i < draft.gates.length - 1 ? (
                <View style={{ flex: 1, width: 3, backgroundColor: p.rule, marginTop: 4 }} />
              ) : null}
            </View>
            <View style={{ flex: 1, gap: 4 }}>
              <View style={{ flexDirection: 'row', alignItems: 'center' }}>
                <View style={{ flex: 1 }}>
                  <Strong>{`Gate ${i + 1}`}</Strong>
                  <Small>
                    {here.length === 0
                      ? 'Nobody stands here.'
                      : here.length === 1
                        ? `Only ${firstName(itemAt(here, 0).name)}`
                        : gate.need === 'any'
                          ? `Any one of ${listWords(here.map((x) => firstName(x.name)))}`
                          : `${listWords(here.map((x) => firstName(x.name)))}, in any order`}
                  </Small>
                </View>
                <IconButton
                  name="arrow-up"
                  label={`Gate ${i + 1} earlier`}
                  disabled={i === 0}
                  onPress={() => edit([putGate(gate, i - 1)])}
                />
                <IconButton
                  name="arrow-down"
                  label={`Gate ${i + 1} later`}
                  disabled={i === draft.gates.length - 1}
                  onPress={() => edit([putGate(gate, i + 1)])}
                />
                <IconButton
                  name="trash"
                  label={`Remove gate ${i + 1}`}
                  onPress={() => edit([{ op: 'drop', list: 'gates', id: gate.id }])}
                />
              </View>
              {here.filter(holdsGate).length > 1 ? (
                <Switch
                  label="Any one of them is enough"
                  on={gate.need === 'any'}
                  onChange={(any) => {
                    const { need: _need, ...all } = gate;
                    edit([putGate(any ? { ...all, need: 'any' } : all)]);
                  }}
                  testID={`any-${i + 1}`}
                />
              ) : null}
              {here.map(row)}
            </View>
          </View>
        );
      })}
      <Button
        icon="plus"
        kind="quiet"
        onPress={() => edit([putGate({ id: newId(), partyIds: [] })])}
        style={{ alignSelf: 'flex-start' }}
        testID="add-gate"
      >
        Add a gate
      </Button>
      {off.length ? (
        <View style={{ gap: 4 }}>
          <Strong>At no gate</Strong>
          {off.map(row)}
        </View>
      ) : null}
      {addable.length ? (
        <View style={{ gap: 6 }}>
          <Strong>In the deal, not in this packet</Strong>
          {addable.map((x) => (
            <Button
              key={x.id}
              icon="plus"
              onPress={() =>
                edit([
                  {
                    op: 'put',
                    list: 'parties',
                    item: { ...x, act: 'sign', ink: draft.parties.reduce((n, y) => Math.max(n, y.ink + 1), 0) },
                  },
                ])
              }
            >
              {`Add ${x.name}`}
            </Button>
          ))}
        </View>
      ) : null}
      {me && !draft.parties.some((x) => x.memberId === me.id) ? (
        <Button
          icon="account-plus"
          kind="quiet"
          onPress={() => {
            const brokers = draft.parties.filter((x) => x.side === 'listing_broker');
            edit([
              {
                op: 'put',
                list: 'parties',
                item: {
                  id: newId(),
                  name: me.name,
                  email: me.email,
                  phone: null,
                  side: 'listing_broker',
                  ordinal: Math.max(0, ...brokers.map((x) => x.ordinal)) + 1,
                  act: 'sign',
                  ink: draft.parties.reduce((n, y) => Math.max(n, y.ink + 1), 0),
                  memberId: me.id,
                },
              },
            ]);
          }}
          style={{ alignSelf: 'flex-start' }}
          testID="add-myself"
        >
          I sign here too
        </Button>
      ) : null}
      <DocumentsCard desk={desk} />
      <ScheduleCard desk={desk} />
      <WordsCard desk={desk} />
      <ThrowAway desk={desk} />
    </View>
  );
}

function PartyRow({
  party,
  gates,
  onGate,
  onAct,
  onChange,
  onDrop,
  documents,
  onDocument,
}: {
  party: PacketParty;
  gates: Gate[];
  onGate: (id: string | null) => void;
  onAct: (act: Act) => void;
  onChange: (party: PacketParty) => void;
  onDrop: () => void;
  documents: { id: string; name: string; gets: boolean }[];
  onDocument: (id: string) => void;
}) {
  const [open, setOpen] = useState(false);
  const without = documents.filter((d) => !d.gets);
  return (
    <View style={{ gap: 6 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <Token name={party.name} ink={party.ink} size={28} />
        <View style={{ flex: 1 }}>
          <Body>{party.name}</Body>
          <Small>
            {[`${sideLabel(party.side, party.ordinal)}, ${ACT_FACTS[party.act].does}`, ...particulars(party)].join(
              ' · ',
            )}
          </Small>
          {without.length ? <Small>{`Does not get ${listWords(without.map((d) => d.name))}`}</Small> : null}
        </View>
        <DropMenu
          anchor={(open) => (
            <IconButton name="chevron-down" label={`Change what ${party.name} does, or where`} onPress={open} />
          )}
        >
          {(close) => (
            <>
              {ACTS.filter((a) => a !== party.act).map((a) => (
                <Menu.Item
                  key={a}
                  title={`${firstName(party.name)} ${puts({ act: a }) ? '' : 'only '}${ACT_FACTS[a].does}`}
                  onPress={close(() => onAct(a))}
                />
              ))}
              {holdsGate(party)
                ? gates.map((g, i) =>
                    g.partyIds.includes(party.id) ? null : (
                      <Menu.Item key={g.id} title={`To gate ${i + 1}`} onPress={close(() => onGate(g.id))} />
                    ),
                  )
                : null}
              {documents.length > 1
                ? documents.map((d) => (
                    <Menu.Item
                      key={d.id}
                      title={d.gets ? `Leave out ${d.name}` : `Give ${d.name} too`}
                      onPress={close(() => onDocument(d.id))}
                    />
                  ))
                : null}
              <Menu.Item title="Language, company, note, code…" onPress={close(() => setOpen(true))} />
              <Menu.Item title="Take out of the packet" onPress={close(onDrop)} />
            </>
          )}
        </DropMenu>
      </View>
      {open ? (
        <>
          <PartyOptions party={party} onChange={onChange} />
          <Button kind="quiet" onPress={() => setOpen(false)} style={{ alignSelf: 'flex-start' }}>
            {`Done with ${firstName(party.name)}`}
          </Button>
        </>
      ) : null}
    </View>
  );
}

/** What is not as usual with a party, in a few words. */
function particulars(p: PacketParty): string[] {
  return [
    p.company ? `for ${p.company}` : '',
    p.language ? ({ es: 'in Spanish', vi: 'in Vietnamese' }[p.language] ?? `in ${p.language}`) : '',
    p.secondStep ? { code: 'access code', email: 'code by email', phone: 'code by phone' }[p.secondStep] : '',
    p.copyAt === 'sending' ? 'at once' : '',
    p.note ? 'own note' : '',
  ].filter(Boolean);
}
