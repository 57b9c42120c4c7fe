import { Part } from '../../ui/boundary';
import { router, useLocalSearchParams } from 'expo-router';
import { Fragment, useState } from 'react';
import { Pressable, View } from 'react-native';
import { Input } from '../../ui/input';
import type { DealView, PartyView } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import { isOurs, KEY_DATES, sidesOf } from '@gatepath/core/deal';
import { listWords, sideLabel } from '@gatepath/core/text';
import { useDeal, useDeleteDocument, useNewPacket, usePartyActions } from '../../api/hooks';
import { DocumentDrop } from '../uploads/document-drop';
import { DocumentRow } from './document-row';
import { earlierOf } from './earlier';
import { PhotographPaper } from './photograph-paper';
import { usePhotographs } from './photographs';
import { StatedCard } from '../incoming/stated-card';
import { useUploads } from '../uploads/uploads';
import { ActivityCard } from './activity-card';
import { BinderCard } from './binder-card';
import { DealHead } from './deal-head';
import { FactsCard } from './facts-card';
import { MilePosts } from './mile-posts';
import { NeedsCard } from './needs-card';
import { NextCard } from './next-card';
import { PathStrip } from '../packet-status/path-strip';
import { packetLine } from '../packet-status/words';
import { PartyForm } from '../people/party-form';
import { KitChooser } from '../shelf/kit-chooser';
import { ConfirmRemove } from '../../ui/confirm';
import { usePalette, useWide } from '../../ui/hooks';
import { NotReady, isReady } from '../../ui/not-ready';
import { ActError, Button, Card, IconButton, Note, Page } from '../../ui/pieces';
import { Body, Heading, Small, Strong } from '../../ui/text';
import { Token } from '../../ui/token';
import { itemAt } from '@gatepath/core/sure';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

/** A deal: its days, the most helpful acts, what it needs, its packets, papers, people, facts, and what happened. */
// eslint-disable-next-line max-lines-per-function -- where everything of a deal stands, part by part
export function DealPlace() {
  const asked = useLocalSearchParams<{ dealId: string; fact?: string; date?: string; add?: string }>();
  const { dealId } = asked;
  const deal = useDeal(dealId);
  const wide = useWide();
  const uploads = useUploads(dealId);
  if (!isReady(deal)) return <NotReady query={deal} what={TEXT.theDeal} />;
  const d = deal.data;
  const date = KEY_DATES.find((k) => k === asked.date) ?? null;
  const column = { flex: 1, gap: 16, minWidth: 0 };
  const needs = (
    <Part name={TEXT.whatTheDealNeeds}>
      <NeedsCard deal={d} open={asked.add ?? null} />
    </Part>
  );
  const facts = (
    <Part name={TEXT.facts}>
      <FactsCard deal={d} open={asked.fact ?? null} />
    </Part>
  );
  const people = (
    <Part name={TEXT.people}>
      <People deal={d} />
    </Part>
  );
  const papers = (
    <Part name={TEXT.papers}>
      <Papers deal={d} uploads={uploads} />
    </Part>
  );
  const packets = (
    <Part name={TEXT.packets}>
      <Packets deal={d} arriving={uploads.uploads.some((u) => !u.problem)} />
    </Part>
  );
  const next = (
    <Part name={TEXT.whatWouldHelpMost}>
      <NextCard deal={d} />
    </Part>
  );
  const happened = (
    <Part name={TEXT.whatHappened}>
      <ActivityCard deal={d} />
    </Part>
  );
  const binder = (
    <Part name={TEXT.binder}>
      <BinderCard deal={d} />
    </Part>
  );
  const slow = d.slow.length ? <Slow deal={d} /> : null;
  // In a new deal people and papers come first; later the next acts do.
  const fresh = d.packets.length === 0;
  const [left, right] = fresh
    ? [
        [people, next, needs, facts],
        [papers, packets, happened, binder],
      ]
    : [
        [next, needs, facts],
        [packets, papers, people, happened, binder],
      ];
  const asFirst = asked.fact ? facts : asked.add ? papers : null;
  const order = fresh
    ? [people, papers, packets, next, needs, facts, happened, binder]
    : [next, needs, packets, papers, people, facts, happened, binder];
  const stack = (parts: typeof order) => parts.map((part, i) => <Fragment key={i}>{part}</Fragment>);
  return (
    <Page max={wide ? 1160 : 760}>
      <DealHead deal={d} />
      <Part name={TEXT.keyDates}>
        <MilePosts deal={d} open={date} />
      </Part>
      <Part name={TEXT.papers}>
        <StatedCard deal={d} />
      </Part>
      {slow}
      {wide ? (
        <Row gap={16} align="start">
          <View style={column}>{stack(left)}</View>
          <View style={column}>{stack(right)}</View>
        </Row>
      ) : (
        stack(asFirst ? [asFirst, ...order.filter((x) => x !== asFirst)] : order)
      )}
    </Page>
  );
}

/** Packets that may be executed only after the day that matters for the deal. */
function Slow({ deal }: { deal: DealView }) {
  const end = deal.goalOn ? shortDay(deal.goalOn, deal.today) : '';
  return (
    <Note
      tone="warn"
      testID="may-be-late"
      title={TEXT.mayNotBeSigned(end)}
      action={
        <View>
          {deal.slow.map((s) => (
            <Button key={s.packetId} kind="quiet" onPress={() => router.push(`/packets/${s.packetId}`)} fit>
              {TEXT.n90LikelyBy(s.name, shortDay(s.day, deal.today))}
            </Button>
          ))}
        </View>
      }
    />
  );
}

function People({ deal }: { deal: DealView }) {
  const [adding, setAdding] = useState(deal.parties.length === 0);
  const [editing, setEditing] = useState<string | null>(null);
  const actions = usePartyActions(deal.id);
  const p = usePalette();
  return (
    <Card>
      <Heading>{TEXT.people}</Heading>
      {inOrder(deal).map(({ party, ink: i }) =>
        editing === party.id ? (
          <PartyForm
            key={party.id}
            start={party}
            saveLabel={TEXT.save}
            error={actions.set.error}
            onCancel={() => setEditing(null)}
            onSave={async (body) => {
              await actions.set.mutateAsync({ partyId: party.id, body });
              setEditing(null);
            }}
          />
        ) : (
          <PersonRow
            key={party.id}
            party={party}
            ours={isOurs(deal.forWhom, party.side)}
            ink={i}
            onEdit={() => setEditing(party.id)}
            onDrop={() => actions.drop.mutate(party.id)}
          />
        ),
      )}
      {adding ? (
        <View style={{ borderTopWidth: deal.parties.length ? 1 : 0, borderColor: p.rule, paddingTop: 8 }}>
          <PartyForm
            key={deal.parties.length}
            start={{ side: deal.parties[deal.parties.length - 1]?.side ?? itemAt(sidesOf(deal.kind, deal.forWhom), 0) }}
            saveLabel={TEXT.addThisPerson}
            error={actions.add.error}
            onCancel={deal.parties.length ? () => setAdding(false) : undefined}
            onSave={(body) => actions.add.mutateAsync(body)}
          />
        </View>
      ) : (
        <Button icon="account-plus" onPress={() => setAdding(true)} testID="add-party">
          {TEXT.addAPerson}
        </Button>
      )}
    </Card>
  );
}

/** Returns people by side, ours first, and within a side by number; each keeps the same ink everywhere. */
function inOrder(deal: DealView) {
  const sides = sidesOf(deal.kind, deal.forWhom);
  const at = (p: PartyView) => (sides.includes(p.side) ? sides.indexOf(p.side) : sides.length);
  return deal.parties
    .map((party, ink) => ({ party, ink }))
    .sort((a, b) => at(a.party) - at(b.party) || a.party.ordinal - b.party.ordinal);
}

function PersonRow({
  party,
  ours,
  ink,
  onEdit,
  onDrop,
}: {
  party: PartyView;
  ours: boolean;
  ink: number;
  onEdit: () => void;
  onDrop: () => void;
}) {
  const p = usePalette();
  return (
    <Row testID="person-row" gap={8}>
      <Token name={party.name} ink={ink} size={32} />
      <Stack grow>
        <Strong>{party.name}</Strong>
        <Small>{`${sideLabel(party.side, party.ordinal)}${ours ? TEXT.ours : ''}${party.capacity ? `, ${party.capacity}` : ''}${party.company ? TEXT.forWord(party.company) : ''}`}</Small>
        <Small numberOfLines={1} style={party.email ? null : { color: p.wine }}>
          {party.email || TEXT.noEmailAddressYet}
        </Small>
      </Stack>
      <IconButton name="pencil" label={TEXT.correctName(party.name)} onPress={onEdit} />
      <ConfirmRemove label={TEXT.remove(party.name)} onRemove={onDrop} />
    </Row>
  );
}

function Papers({ deal, uploads }: { deal: DealView; uploads: ReturnType<typeof useUploads> }) {
  const drop = useDeleteDocument(deal.id);
  const photographs = usePhotographs(deal.id);
  return (
    <Card>
      <Heading>{TEXT.papers}</Heading>
      {deal.documents.length === 0 ? <Body>{TEXT.addThePapersOfThis}</Body> : null}
      {deal.documents
        .filter((doc) => !doc.replacedBy)
        .map((doc) => (
          <DocumentRow
            key={doc.id}
            doc={doc}
            inDeal={deal.papers.find((x) => x.documentId === doc.id) ?? null}
            today={deal.today}
            earlier={earlierOf(doc, deal.documents)}
            others={deal.documents.filter((d) => d.id !== doc.id && d.status === 'ready' && !d.replacedBy)}
            onDrop={() => drop.mutate(doc.id)}
          />
        ))}
      <ActError of={drop} />
      <DocumentDrop {...uploads} />
      <PhotographPaper photographs={photographs} />
    </Card>
  );
}

/** @param arriving  whether papers are still being uploaded; a packet made now would be without them */
// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function Packets({ deal, arriving }: { deal: DealView; arriving: boolean }) {
  const p = usePalette();
  const create = useNewPacket(deal.id);
  const [name, setName] = useState<string | null>(null);
  const signed = new Set(
    deal.papers.filter((x) => x.status === 'executed' || x.status === 'out').map((x) => x.documentId),
  );
  const left = deal.documents.filter(
    (d) => !d.replacedBy && d.status !== 'failed' && !d.unsigned && !d.elsewhereOn && !signed.has(d.id),
  );
  const reading = left.filter((d) => d.status !== 'ready');
  const start = () =>
    create.mutate(
      { name: (name ?? '').trim(), documentIds: left.map((d) => d.id) },
      { onSuccess: (packet) => router.push(`/packets/${packet.id}`) },
    );
  return (
    <Card>
      <Heading>{TEXT.packets}</Heading>
      {deal.packets.length === 0 ? <Body>{TEXT.aPacketIsWhatGoes}</Body> : null}
      {deal.packets.map((packet) => (
        <Pressable
          key={packet.id}
          role="link"
          testID="packet-row"
          onPress={() => router.push(`/packets/${packet.id}`)}
          style={{ gap: 6, minHeight: 44, borderBottomWidth: 1, borderColor: p.rule, paddingBottom: 10 }}
        >
          <Strong>{packet.name}</Strong>
          <PathStrip packet={packet} />
          <Small>{packetLine(packet)}</Small>
        </Pressable>
      ))}
      {arriving ? <Small>{TEXT.papersAreStillComing}</Small> : null}
      {reading.length ? (
        <Small testID="still-reading">{TEXT.stillBeingReadYouCan(listWords(reading.map((d) => d.name)))}</Small>
      ) : null}
      {name === null ? (
        <Button
          kind={deal.packets.length ? 'plain' : 'main'}
          icon="plus"
          onPress={() => setName(left.length === 1 ? itemAt(left, 0).name : TEXT.papersOf(deal.address))}
          disabled={arriving}
          testID="new-packet"
        >
          {TEXT.newPacket}
        </Button>
      ) : (
        <Stack gap={8}>
          <Input
            label={TEXT.nameOfThePacket}
            value={name}
            onChangeText={setName}
            testID="packet-name"
            onSubmitEditing={start}
          />
          <ActError of={create} />
          <Row gap={8} align="stretch">
            <Button kind="main" onPress={start} busy={create.isPending} testID="start-packet">
              {TEXT.goToTheDesk}
            </Button>
            <Button onPress={() => setName(null)}>{TEXT.cancel}</Button>
          </Row>
        </Stack>
      )}
      {name === null ? <KitChooser dealId={deal.id} /> : null}
      {name === null && deal.kind === 'tenancy' ? (
        <Button kind="quiet" onPress={() => router.push(`/notices/new?deals=${deal.id}`)} testID="send-notice">
          {TEXT.sendANotice}
        </Button>
      ) : null}
    </Card>
  );
}
