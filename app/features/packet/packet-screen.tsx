/** A packet that was sent: path, hold-up, ledger, activity; all of it live. */
import { Part } from '../../ui/boundary';
import { router } from 'expo-router';
import { useState } from 'react';
import { Linking, View } from 'react-native';
import type { PacketView, SentView } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { usePacketActions } from '../../api/hooks';
import { usePalette, useWide } from '../../ui/hooks';
import { ActError, Button, Card, IconButton, Page } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { SaveToShelfCard } from '../shelf/save-as-kit-card';
import { LedgerGrid } from '../ledger/grid';
import { Fills } from '../pages/fills';
import { Redlines } from '../pages/redlines';
import { AtRect, MarkFace } from '../pages/mark-box';
import { Sheet } from '../pages/sheet';
import { ChangeAhead } from './change-ahead';
import { CorrectionCard } from './correction-card';
import { MarksCard, movable } from './marks-card';
import { PathCard } from './path-card';
import { AheadCard, EndCard, KinNote, QuestionsCard } from './under-way';
import { STATUS_WORDS } from '../packet-status/words';
import { when } from '../../ui/dates';
import { TEXT } from './words';
import { Actions, Columns, Row, Stack } from '../../ui/layout';

interface Props {
  packet: PacketView;
  sent: SentView;
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function PacketScreen({ packet, sent }: Props) {
  const p = usePalette();
  const wide = useWide();
  const [look, setLook] = useState<{ documentId: string; page: number } | null>(null);
  const head =
    packet.status === 'at_gate'
      ? TEXT.atGateOf(sent.gate + 1, sent.plan.gates.length, sent.holdUp.sentence)
      : `${STATUS_WORDS[packet.status]}. ${sent.holdUp.sentence}`;
  const color = packet.status === 'executed' ? p.moss : packet.status === 'at_gate' ? p.brick : p.wine;
  return (
    <Page max={wide ? 1120 : 760}>
      <Row gap={4} align="start">
        <IconButton
          name="arrow-left"
          label={TEXT.backToTheDeal}
          onPress={() => router.navigate(`/deals/${packet.dealId}`)}
        />
        <Stack grow>
          <Small>{packet.dealName}</Small>
          <Title>{packet.name}</Title>
          <Strong style={{ color }} testID="packet-state">
            {head}
          </Strong>
        </Stack>
      </Row>
      {wide ? <PathCard packet={packet} sent={sent} /> : null}
      <Columns wide={wide}>
        <Stack gap={16} style={{ flex: wide ? 1 : undefined }}>
          <KinNote packet={packet} />
          <QuestionsCard packet={packet} sent={sent} />
          <Sealed packet={packet} sent={sent} />
          {wide ? null : <PathCard packet={packet} sent={sent} />}
          {wide ? <After packet={packet} sent={sent} /> : null}
        </Stack>
        <Stack gap={16} style={{ flex: wide ? 1 : undefined }}>
          <Card>
            <Row align="baseline" justify="between">
              <Heading>{TEXT.pageLedger}</Heading>
              <Small testID="ledger-sum">{TEXT.ofDone(sent.ledger.done, sent.ledger.total)}</Small>
            </Row>
            {look ? (
              <PageView
                key={`${look.documentId}:${look.page}`}
                packet={packet}
                sent={sent}
                look={look}
                onClose={() => setLook(null)}
              />
            ) : null}
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
        </Stack>
      </Columns>
    </Page>
  );
}

/** What comes after path and ledger: below them on a phone, beside them on a wide screen. */
function After({ packet, sent }: Props) {
  return (
    <>
      <Part name={TEXT.whatIsAhead}>
        <AheadCard packet={packet} sent={sent} />
      </Part>
      <Part name={TEXT.changingWhatIsAhead}>
        <ChangeAhead packet={packet} sent={sent} />
      </Part>
      <Part name={TEXT.whatHappened}>
        <Activity packet={packet} sent={sent} />
      </Part>
      {packet.status === 'withdrawn' ? null : <SaveToShelfCard packet={packet} />}
      <EndCard packet={packet} />
    </>
  );
}

function Sealed({ packet, sent }: Props) {
  const { lateRound } = usePacketActions(packet.id);
  if (packet.status !== 'executed') return null;
  return (
    <Card testID="sealed">
      <Heading>{TEXT.sealedCopies}</Heading>
      {sent.sealed ? (
        sent.sealed.map((s) => (
          <Button
            key={s.documentId}
            icon="download"
            onPress={() => void Linking.openURL(urlOf('sealedCopy', { packetId: packet.id, documentId: s.documentId }))}
            testID="download-sealed"
          >
            {s.name}
          </Button>
        ))
      ) : (
        <Body>{TEXT.theSealedCopiesAreBeing}</Body>
      )}
      {sent.sealed ? (
        <Row align="stretch" wrap>
          <Button kind="quiet" onPress={() => router.push('/check')}>
            {TEXT.verifyASealedCopy}
          </Button>
          <Button
            kind="quiet"
            busy={lateRound.isPending}
            onPress={() =>
              lateRound.mutate(
                sent.plan.documents.map((d) => d.id),
                { onSuccess: (draft) => router.push(`/packets/${draft.id}`) },
              )
            }
            testID="late-round"
          >
            {TEXT.startALateSigningRound}
          </Button>
        </Row>
      ) : null}
      <ActError of={lateRound} />
    </Card>
  );
}

function Activity({ packet, sent }: Props) {
  const [all, setAll] = useState(false);
  const lines = all ? sent.activity : sent.activity.slice(0, 8);
  return (
    <Card>
      <Heading>{TEXT.whatHappened}</Heading>
      {lines.map((l) => (
        <View key={l.seq}>
          <Body>{l.sentence}</Body>
          <Small>{when(l.at, sent.plan.timeZone)}</Small>
        </View>
      ))}
      {sent.activity.length > lines.length ? (
        <Button kind="quiet" onPress={() => setAll(true)} fit>
          {TEXT.showEverything}
        </Button>
      ) : null}
      <Button
        kind="quiet"
        icon="download"
        onPress={() => void Linking.openURL(urlOf('chain', { packetId: packet.id }))}
        fit
        testID="download-chain"
      >
        {TEXT.downloadTheEventRecord}
      </Button>
    </Card>
  );
}

/** One page with what is on it and what is missing. */
// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function PageView({
  packet,
  sent,
  look,
  onClose,
}: {
  packet: PacketView;
  sent: SentView;
  look: { documentId: string; page: number };
  onClose: () => void;
}) {
  const [width, setWidth] = useState(0);
  const [changing, setChanging] = useState<'words' | 'places' | null>(null);
  const doc = sent.plan.documents.find((d) => d.id === look.documentId);
  const page = doc?.pages[look.page - 1];
  if (!doc || !page) return null;
  const leave = () => setChanging(null);
  if (changing === 'words') return <CorrectionCard packet={packet} sent={sent} look={look} onClose={leave} />;
  if (changing === 'places') return <MarksCard packet={packet} sent={sent} look={look} onClose={leave} />;
  const scale = width / page.width;
  const fills = sent.fills.filter((f) => f.documentId === doc.id && f.page === look.page);
  const filled = new Set(fills.map((f) => f.markId));
  const open = sent.plan.marks.filter((m) => m.documentId === doc.id && m.page === look.page && !filled.has(m.id));
  return (
    <Stack gap={8} testID="look">
      <Row>
        <Strong grow>{TEXT.page(doc.name, look.page)}</Strong>
        <IconButton name="close" label={TEXT.closeThePage} onPress={onClose} />
      </Row>
      <View onLayout={(e) => setWidth(e.nativeEvent.layout.width)}>
        {width > 0 ? (
          <Sheet
            page={page}
            width={width}
            url={urlOf('documentPage', { documentId: doc.id, page: look.page })}
            label={TEXT.pageOf(look.page, doc.name)}
          >
            <Redlines
              page={page}
              scale={scale}
              redlines={sent.redlines.filter((r) => r.documentId === doc.id && r.page === look.page)}
            />
            <Fills
              page={page}
              scale={scale}
              fills={fills}
              pictureUrl={(sha256) => urlOf('packetPicture', { packetId: packet.id, sha256 })}
            />
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
          ? TEXT.filled(
              [...new Set(fills.map((f) => sent.plan.parties.find((x) => x.id === f.partyId)?.name))].join(', '),
            )
          : TEXT.noOneHasFilled}
      </Small>
      {packet.status === 'at_gate' ? (
        <Actions>
          <Button onPress={() => setChanging('words')} testID="change-page">
            {TEXT.changeSomethingOnThisPage}
          </Button>
          {movable(sent, doc.id).length ? (
            <Button onPress={() => setChanging('places')} testID="change-places">
              {TEXT.changePlaces}
            </Button>
          ) : null}
        </Actions>
      ) : null}
    </Stack>
  );
}
