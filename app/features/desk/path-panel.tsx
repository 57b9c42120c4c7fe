/** The path of a draft: gates with their parties, the documents, and who does what. */
import { View } from 'react-native';
import {
  type Act,
  type Draft,
  type DraftEdit,
  type Gate,
  type PacketParty,
  type PathPattern,
  editsToRemoveParty,
  hasDocument,
  gatesOfPattern,
  holdsGate,
  calledOf,
} from '@gatepath/core/packet';
import { listWords } from '@gatepath/core/text';
import { newId } from '../../api/client';
import { useSession } from '../../api/hooks';
import { GatePost } from '../../ui/gate';
import { usePalette } from '../../ui/hooks';
import { Button, IconButton } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Heading, Small, Strong } from '../../ui/text';
import { DocumentsCard } from './documents-card';
import { ThrowAway, WordsCard } from './packet-cards';
import { ToldCard } from './told';
import { PartyRow } from './party-row';
import { ScheduleCard } from './schedule-card';
import { SendLaterCard } from './send-later-card';
import { useDesk, useDeskActs, useOnDesk } from './use-desk';
import type { DraftHandle } from './use-draft';
import { TEXT } from './words';
import { Actions, Row, Stack } from '../../ui/layout';

const PATTERNS: { value: PathPattern; label: string }[] = [
  { value: 'by_side', label: TEXT.sellersThenBrokerThenBuyers },
  { value: 'together', label: TEXT.allAtOnce },
  { value: 'one_by_one', label: TEXT.oneAfterAnother },
];

const putGate = (gate: Gate, index?: number): DraftEdit => ({ op: 'put', list: 'gates', item: gate, index });
const putParty = (item: PacketParty): DraftEdit => ({ op: 'put', list: 'parties', item });
const without = (gate: Gate, partyId: string): Gate => ({
  ...gate,
  partyIds: gate.partyIds.filter((x) => x !== partyId),
});
/** Returns the first ink that nobody in the packet has. */
const nextInk = ({ parties }: Draft) => parties.reduce((n, y) => Math.max(n, y.ink + 1), 0);

/** What the path needs of a draft: a packet's, or a kit's, which has no documents of its own to leave out. */
export interface OnPath extends Pick<DraftHandle, 'draft' | 'edit'> {
  names: { id: string; name: string }[];
}

export function PathPanel() {
  const on = useOnDesk();
  return (
    <Stack gap={12}>
      <Heading>{TEXT.path}</Heading>
      <PathOfDraft on={{ draft: on.draft, edit: on.edit, names: on.packet.documents }} />
      <Addable />
      <AddMyself />
      <DocumentsCard />
      <SendLaterCard />
      <ScheduleCard />
      <WordsCard on={on} nameLabel={TEXT.nameOfThePacket} tags={[...on.view.tags.keys()].slice(0, 4)} />
      <ToldCard on={on} />
      <ThrowAway />
    </Stack>
  );
}

/** The gates with their parties, usual orders in one touch, and the parties at no gate. */
export function PathOfDraft({ on }: { on: OnPath }) {
  const { draft, edit } = on;
  const known = new Set(draft.gates.flatMap((g) => g.partyIds));
  const off = draft.parties.filter((x) => !known.has(x.id));
  const takePattern = (pattern: PathPattern) =>
    edit([
      ...draft.gates.map((g): DraftEdit => ({ op: 'drop', list: 'gates', id: g.id })),
      ...gatesOfPattern(pattern, draft.parties, newId).map((g) => putGate(g)),
    ]);
  return (
    <>
      <Actions>
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
      </Actions>
      {draft.gates.map((gate, i) => (
        <GateRow key={gate.id} on={on} gate={gate} n={i + 1} />
      ))}
      <Button
        icon="plus"
        kind="quiet"
        onPress={() => edit([putGate({ id: newId(), partyIds: [] })])}
        fit
        testID="add-gate"
      >
        {TEXT.addAGate}
      </Button>
      {off.length ? (
        <Stack gap={4}>
          <Strong>{TEXT.atNoGate}</Strong>
          {off.map((party) => (
            <PartyOnPath key={party.id} on={on} party={party} />
          ))}
        </Stack>
      ) : null}
    </>
  );
}

/** Returns who has to be done at a gate before the next one opens, in words. */
function whoStands(here: PacketParty[], need: Gate['need']): string {
  const [first, ...others] = here.map((x) => calledOf(x));
  if (first === undefined) return TEXT.noOneIsHere;
  if (!others.length) return TEXT.only(first);
  const names = listWords([first, ...others]);
  return need === 'any' ? TEXT.anyOneOf(names) : TEXT.inAnyOrder(names);
}

function GateRow({ on, gate, n }: { on: OnPath; gate: Gate; n: number }) {
  const p = usePalette();
  const { draft, edit } = on;
  const here = gate.partyIds.flatMap((id) => draft.parties.find((x) => x.id === id) ?? []);
  const isLast = n === draft.gates.length;
  return (
    <Row testID="gate" gap={8} align="stretch">
      <Stack align="center">
        <GatePost state={n === 1 ? 'lit' : 'closed'} n={n} />
        {isLast ? null : <View style={{ flex: 1, width: 3, backgroundColor: p.rule, marginTop: 4 }} />}
      </Stack>
      <Stack gap={4} grow>
        <Row>
          <Stack grow>
            <Strong>{TEXT.gate(n)}</Strong>
            <Small>{whoStands(here, gate.need)}</Small>
          </Stack>
          <IconButton
            name="arrow-up"
            label={TEXT.gateEarlier(n)}
            disabled={n === 1}
            onPress={() => edit([putGate(gate, n - 2)])}
          />
          <IconButton
            name="arrow-down"
            label={TEXT.gateLater(n)}
            disabled={isLast}
            onPress={() => edit([putGate(gate, n)])}
          />
          <IconButton
            name="trash"
            label={TEXT.removeGate(n)}
            onPress={() => edit([{ op: 'drop', list: 'gates', id: gate.id }])}
          />
        </Row>
        {here.filter(holdsGate).length > 1 ? (
          <Switch
            label={TEXT.anyOneOfThem}
            on={gate.need === 'any'}
            onChange={(any) => {
              const { need: _need, ...all } = gate;
              edit([putGate(any ? { ...all, need: 'any' } : all)]);
            }}
            testID={`any-${n}`}
          />
        ) : null}
        {here.map((party) => (
          <PartyOnPath key={party.id} on={on} party={party} />
        ))}
      </Stack>
    </Row>
  );
}

/** A party with all that can be changed about it from the path. */
function PartyOnPath({ on, party }: { on: OnPath; party: PacketParty }) {
  const { draft, edit } = on;
  const moveTo = (gateId: string | null) => {
    const out = draft.gates.filter((g) => g.partyIds.includes(party.id) && g.id !== gateId);
    const to = draft.gates.find((g) => g.id === gateId && !g.partyIds.includes(party.id));
    edit([
      ...out.map((g) => putGate(without(g, party.id))),
      ...(to ? [putGate({ ...to, partyIds: [...to.partyIds, party.id] })] : []),
    ]);
  };
  const setAct = (act: Act) => {
    const gates = holdsGate({ act }) ? [] : draft.gates.filter((g) => g.partyIds.includes(party.id));
    edit([putParty({ ...party, act }), ...gates.map((g) => putGate(without(g, party.id)))]);
  };
  const turnDocument = (id: string) => {
    const all = draft.documents.map((d) => d.id);
    const gets = all.filter((d) => (d === id ? !hasDocument(party, d) : hasDocument(party, d)));
    const { only: _only, ...rest } = party;
    // A party that gets everything has no list, so that a document added later is included.
    edit([putParty(gets.length === all.length ? rest : { ...rest, only: gets })]);
  };
  return (
    <PartyRow
      party={party}
      gates={draft.gates}
      onGate={moveTo}
      onAct={setAct}
      onChange={(item) => edit([putParty(item)])}
      onDrop={() => edit(editsToRemoveParty(draft, party.id))}
      documents={draft.documents.flatMap((d) => {
        const name = on.names.find((x) => x.id === d.id)?.name;
        return name === undefined ? [] : [{ id: d.id, name, gets: hasDocument(party, d.id) }];
      })}
      onDocument={turnDocument}
    />
  );
}

/** People of the deal who are not in the packet. */
function Addable() {
  const { draft, edit, packet } = useOnDesk();
  const addable = packet.dealParties.filter((x) => !draft.parties.some((y) => y.id === x.id));
  if (!addable.length) return null;
  return (
    <Stack gap={8}>
      <Strong>{TEXT.inTheDealNot}</Strong>
      {/* Who they are in the address book is the deal's to know, and stands in no draft. */}
      {addable.map(({ personId: _, ...x }) => (
        <Button key={x.id} icon="plus" onPress={() => edit([putParty({ ...x, act: 'sign', ink: nextInk(draft) })])}>
          {TEXT.add(x.name)}
        </Button>
      ))}
    </Stack>
  );
}

/** The member who prepares the packet, as a broker who signs in it. */
function AddMyself() {
  const { edit } = useDeskActs();
  const draft = useDesk((s) => s.draft);
  const me = useSession().data?.member ?? null;
  if (!me || draft.parties.some((x) => x.memberId === me.id)) return null;
  const brokers = draft.parties.filter((x) => x.side === 'listing_broker');
  const asBroker: PacketParty = {
    id: newId(),
    name: me.name,
    email: me.email,
    phone: null,
    side: 'listing_broker',
    ordinal: Math.max(0, ...brokers.map((x) => x.ordinal)) + 1,
    act: 'sign',
    ink: nextInk(draft),
    memberId: me.id,
  };
  return (
    <Button icon="account-plus" kind="quiet" onPress={() => edit([putParty(asBroker)])} fit testID="add-myself">
      {TEXT.iSignHereToo}
    </Button>
  );
}
