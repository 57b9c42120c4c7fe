/** A packet under way or at its end: path, hold-up, ledger, activity; all of it live. */
import { router } from 'expo-router';
import { useState } from 'react';
import { Linking, View } from 'react-native';
import { Input } from '../../ui/input';
import { pathOf, type PacketView, type SentView } from '@gatepath/contract';
import { count, firstName } from '@gatepath/core/text';
import { usePacketActions } from '../../api/hooks';
import { GatePost } from '../../ui/gate';
import { usePalette, useWide } from '../../ui/hooks';
import { Button, Card, IconButton, Page, Trouble } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { Token } from '../../ui/token';
import { LedgerGrid } from '../ledger/grid';
import { Fills } from '../pages/fills';
import { Redlines } from '../pages/redlines';
import { AtRect, MarkFace } from '../pages/mark-box';
import { Sheet } from '../pages/sheet';
import { gateState } from './path-strip';
import { STATUS_WORDS, when } from './words';

interface Props {
  packet: PacketView;
  sent: SentView;
}

export function PacketScreen({ packet, sent }: Props) {
  const p = usePalette();
  const wide = useWide();
  const [look, setLook] = useState<{ documentId: string; page: number } | null>(null);
  const head =
    packet.status === 'at_gate'
      ? `At gate ${sent.gate + 1} of ${sent.plan.gates.length}. ${sent.holdUp.sentence}`
      : `${STATUS_WORDS[packet.status]}. ${sent.holdUp.sentence}`;
  const color = packet.status === 'executed' ? p.moss : packet.status === 'at_gate' ? p.brick : p.wine;
  return (
    <Page max={wide ? 1120 : 760}>
      <View style={{ flexDirection: 'row', alignItems: 'flex-start', gap: 4 }}>
        <IconButton
          name="arrow-left"
          label="Back to the deal"
          onPress={() => router.navigate(`/deals/${packet.dealId}`)}
        />
        <View style={{ flex: 1 }}>
          <Small>{packet.dealName}</Small>
          <Title>{packet.name}</Title>
          <Strong style={{ color }} testID="packet-state">
            {head}
          </Strong>
        </View>
      </View>
      <View style={{ flexDirection: wide ? 'row' : 'column', gap: 16, alignItems: wide ? 'flex-start' : 'stretch' }}>
        <View style={{ flex: wide ? 1 : undefined, gap: 16 }}>
          <Sealed packet={packet} sent={sent} />
          <PathCard packet={packet} sent={sent} />
          {wide ? <After packet={packet} sent={sent} /> : null}
        </View>
        <View style={{ flex: wide ? 1 : undefined, gap: 16 }}>
          <Card>
            <View style={{ flexDirection: 'row', justifyContent: 'space-between', alignItems: 'baseline' }}>
              <Heading>Page ledger</Heading>
              <Small testID="ledger-sum">{`${sent.ledger.done} of ${sent.ledger.total} done`}</Small>
            </View>
            {look ? <LookAtPage sent={sent} look={look} onClose={() => setLook(null)} /> : null}
            <LedgerGrid
              rows={sent.ledger.rows}
              parties={sent.plan.parties.filter((x) => sent.ledger.partyIds.includes(x.id))}
              documents={sent.plan.documents}
              here={look ? { ...look, partyId: null } : null}
              onTouch={(documentId, page) => setLook({ documentId, page })}
              height={sent.ledger.rows.length > 40 ? 900 : undefined}
            />
          </Card>
          {wide ? null : <After packet={packet} sent={sent} />}
        </View>
      </View>
    </Page>
  );
}

/** What comes after path and ledger: on a phone below them, on a wide screen beside. */
function After({ packet, sent }: Props) {
  return (
    <>
      <Activity sent={sent} />
      {packet.status === 'at_gate' ? <Withdraw packetId={packet.id} /> : null}
    </>
  );
}

function Sealed({ packet, sent }: Props) {
  if (packet.status !== 'executed') return null;
  return (
    <Card testID="sealed">
      <Heading>Sealed copies</Heading>
      {sent.sealed ? (
        sent.sealed.map((s) => (
          <Button
            key={s.documentId}
            icon="download"
            onPress={() =>
              void Linking.openURL(pathOf('sealedCopy', { packetId: packet.id, documentId: s.documentId }))
            }
            testID="download-sealed"
          >
            {s.name}
          </Button>
        ))
      ) : (
        <Body>The sealed copies are being made. They show here in a moment.</Body>
      )}
    </Card>
  );
}

function PathCard({ packet, sent }: Props) {
  const p = usePalette();
  const { plan } = sent;
  const copies = plan.parties.filter((x) => !plan.gates.some((g) => g.partyIds.includes(x.id)));
  return (
    <Card>
      <Heading>Path</Heading>
      {plan.gates.map((gate, i) => {
        const state = gateState({ status: packet.status, gate: sent.gate }, i);
        return (
          <View key={gate.id} style={{ flexDirection: 'row', gap: 12 }}>
            <View style={{ alignItems: 'center' }}>
              <GatePost state={state} n={i + 1} size={34} />
              {i < plan.gates.length - 1 ? (
                <View
                  style={{
                    flex: 1,
                    width: 3,
                    marginVertical: 4,
                    backgroundColor: state === 'passed' ? p.moss : p.rule,
                  }}
                />
              ) : null}
            </View>
            <View style={{ flex: 1, gap: 10, paddingBottom: 12 }}>
              {gate.partyIds.map((id) => (
                <PartyLine key={id} id={id} sent={sent} timeZone={packet.timeZone} />
              ))}
            </View>
          </View>
        );
      })}
      {copies.length ? <Small>{`${copies.map((x) => x.name).join(', ')}: a copy at the end`}</Small> : null}
      <Button
        kind="quiet"
        icon="email"
        onPress={() => router.push(`/mailroom?packetId=${packet.id}`)}
        style={{ alignSelf: 'flex-start' }}
      >
        What was sent to whom
      </Button>
    </Card>
  );
}

function PartyLine({ id, sent, timeZone }: { id: string; sent: SentView; timeZone: string }) {
  const p = usePalette();
  const party = sent.plan.parties.find((x) => x.id === id)!;
  const s = sent.parties.find((x) => x.partyId === id)!;
  const first = firstName(party.name);
  const on = s.device ? ` on a ${s.device}` : '';
  const [head, tail] =
    s.status === 'done'
      ? [`${first} is done`, `${s.doneAt ? when(s.doneAt, timeZone) : ''}${on}, ${count(s.total, 'mark')}`]
      : s.status === 'declined'
        ? [`${first} declined`, `“${s.reason}”`]
        : s.status === 'in_progress' || s.status === 'opened'
          ? [
              `${first}: ${s.total - s.left} of ${s.total} done`,
              `opened ${s.openedAt ? when(s.openedAt, timeZone) : ''}${on}; ${count(s.left, 'place')} to go`,
            ]
          : s.status === 'asked'
            ? [`${first} has not opened it yet`, `asked ${s.askedAt ? when(s.askedAt, timeZone) : ''}`]
            : [`${first} comes later`, party.act === 'approve' ? 'approves' : 'signs'];
  return (
    <View testID={`party-${first}`} style={{ flexDirection: 'row', gap: 10, alignItems: 'flex-start' }}>
      <Token name={party.name} ink={party.ink} size={30} />
      <View style={{ flex: 1 }}>
        <Strong style={s.status === 'declined' ? { color: p.wine } : null}>{head}</Strong>
        <Small>{tail}</Small>
      </View>
    </View>
  );
}

function Activity({ sent }: { sent: SentView }) {
  const [all, setAll] = useState(false);
  const lines = all ? sent.activity : sent.activity.slice(0, 8);
  return (
    <Card>
      <Heading>What happened</Heading>
      {lines.map((l) => (
        <View key={l.seq}>
          <Body>{l.sentence}</Body>
          <Small>{when(l.at, sent.plan.timeZone)}</Small>
        </View>
      ))}
      {sent.activity.length > lines.length ? (
        <Button kind="quiet" onPress={() => setAll(true)} style={{ alignSelf: 'flex-start' }}>
          Show everything
        </Button>
      ) : null}
    </Card>
  );
}

/** One page with what stands on it and what is still wanted. */
function LookAtPage({
  sent,
  look,
  onClose,
}: {
  sent: SentView;
  look: { documentId: string; page: number };
  onClose: () => void;
}) {
  const [width, setWidth] = useState(0);
  const doc = sent.plan.documents.find((d) => d.id === look.documentId);
  const page = doc?.pages[look.page - 1];
  if (!doc || !page) return null;
  const scale = width / page.width;
  const fills = sent.fills.filter((f) => f.documentId === doc.id && f.page === look.page);
  const filled = new Set(fills.map((f) => f.markId));
  const open = sent.plan.marks.filter((m) => m.documentId === doc.id && m.page === look.page && !filled.has(m.id));
  return (
    <View style={{ gap: 6 }} testID="look">
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <Strong style={{ flex: 1 }}>{`${doc.name}, page ${look.page}`}</Strong>
        <IconButton name="close" label="Close the page" onPress={onClose} />
      </View>
      <View onLayout={(e) => setWidth(e.nativeEvent.layout.width)}>
        {width > 0 ? (
          <Sheet
            page={page}
            width={width}
            url={pathOf('documentPage', { documentId: doc.id, page: look.page })}
            label={`Page ${look.page} of ${doc.name}`}
          >
            <Redlines
              page={page}
              scale={scale}
              redlines={sent.redlines.filter((r) => r.documentId === doc.id && r.page === look.page)}
            />
            <Fills page={page} scale={scale} fills={fills} />
            {open.map((m) => (
              <AtRect key={m.id} rect={m.rect} scale={scale}>
                <MarkFace
                  rect={m.rect}
                  scale={scale}
                  kind={m.kind}
                  ink={sent.plan.parties.find((x) => x.id === m.partyId)?.ink ?? 0}
                  required={m.required}
                />
              </AtRect>
            ))}
          </Sheet>
        ) : null}
      </View>
      <Small>
        {fills.length
          ? `Filled: ${[...new Set(fills.map((f) => sent.plan.parties.find((x) => x.id === f.partyId)?.name))].join(', ')}`
          : 'Nobody has filled anything here yet.'}
      </Small>
    </View>
  );
}

function Withdraw({ packetId }: { packetId: string }) {
  const { withdraw } = usePacketActions(packetId);
  const [reason, setReason] = useState<string | null>(null);
  if (reason === null)
    return (
      <Button kind="quiet" onPress={() => setReason('')} style={{ alignSelf: 'flex-start' }}>
        Withdraw this packet
      </Button>
    );
  return (
    <Card>
      <Heading>Withdraw this packet</Heading>
      <Body>Everyone who was asked is told, and no link works any more.</Body>
      <Input label="Why?" value={reason} onChangeText={setReason} />
      {withdraw.isError ? <Trouble error={withdraw.error} /> : null}
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button kind="stop" busy={withdraw.isPending} onPress={() => withdraw.mutate(reason)}>
          Withdraw
        </Button>
        <Button onPress={() => setReason(null)}>Keep it going</Button>
      </View>
    </Card>
  );
}
