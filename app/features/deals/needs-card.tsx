/** What the deal needs: each paper with its status, reason and due day; opened, what can be done about it. */
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import type { DealView } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import { DATE_PHRASES, type Requirement } from '@gatepath/core/deal';
import { listWords, SIDE_WORDS } from '@gatepath/core/text';
import { useDealChanges } from '../../api/deal-hooks';
import { PaperCorner } from '../../ui/corner';
import { usePalette } from '../../ui/hooks';
import { Input } from '../../ui/input';
import { ActError, Button, Card, Trouble } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { useActs } from './use-acts';
import { TEXT } from './words';
import { Actions, Row, Stack } from '../../ui/layout';

export function NeedsCard({ deal, open }: { deal: DealView; open?: string | null }) {
  const p = usePalette();
  const [shown, setShown] = useState<string | null>(open ?? null);
  const list = [...deal.requirements].sort((a, b) => rank(a) - rank(b));
  return (
    <Card testID="needs">
      <Row gap={8}>
        <Stack grow>
          <Heading>{TEXT.whatTheDealNeeds}</Heading>
        </Stack>
        <Button kind="quiet" onPress={() => router.push('/rules')} testID="why-these">
          {TEXT.whyThese}
        </Button>
      </Row>
      {list.length ? null : (
        <Small>{deal.asked.length ? TEXT.noPapersAreRequiredYet : TEXT.theFirmsRulesRequireNo}</Small>
      )}
      {list.map((r, i) => (
        <View key={r.ruleId} style={{ borderTopWidth: i ? 1 : 0, borderColor: p.rule }}>
          <RequirementRow
            deal={deal}
            r={r}
            open={shown === r.ruleId}
            onOpen={() => setShown(shown === r.ruleId ? null : r.ruleId)}
          />
        </View>
      ))}
    </Card>
  );
}

/** Returns the rank of a requirement: open ones first. */
const rank = (r: Requirement) => ({ open: 0, met: 1, waived: 2 })[r.state];

function RequirementRow({
  deal,
  r,
  open,
  onOpen,
}: {
  deal: DealView;
  r: Requirement;
  open: boolean;
  onOpen: () => void;
}) {
  const late = r.state === 'open' && r.due !== null && r.due.day < deal.today;
  const due = r.state === 'met' ? 'in' : r.state === 'waived' ? 'waived' : r.due ? shortDay(r.due.day, deal.today) : '';
  const under = r.state === 'open' && r.corner === 'needed' && !r.documentId ? r.reason : r.words;
  return (
    <View>
      <Pressable
        role="button"
        testID={`need-${r.paper}`}
        aria-expanded={open}
        aria-label={`${r.title}: ${under}${due ? `, ${late ? TEXT.lateSinceWithin : ''} ${due}` : ''}`}
        onPress={onOpen}
        style={{ flexDirection: 'row', alignItems: 'center', gap: 12, minHeight: 56, paddingVertical: 6 }}
      >
        <PaperCorner corner={r.corner} />
        <Stack grow>
          <Strong>{r.title}</Strong>
          <Small>{under}</Small>
        </Stack>
        <Small tone={late ? 'stop' : 'plain'} style={{ fontFamily: FONT.bold, textAlign: 'right' }}>
          {late ? TEXT.lateAndDue(due) : due}
        </Small>
      </Pressable>
      {open ? <Detail deal={deal} r={r} /> : null}
    </View>
  );
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function Detail({ deal, r }: { deal: DealView; r: Requirement }) {
  const { act, busy, error } = useActs();
  const { waive, unwaive } = useDealChanges(deal.id);
  const [reason, setReason] = useState<string | null>(null);
  const { documentId, packetId } = r;
  return (
    <Stack gap={8} style={{ paddingBottom: 12, paddingLeft: 38 }} testID={`detail-${r.paper}`}>
      <Small>{TEXT.requiredBecause(r.reason)}</Small>
      {r.due ? <Small>{r.due.why}</Small> : null}
      {r.dueHangsOn ? <Small>{TEXT.itsDueDateIsCounted(DATE_PHRASES[r.dueHangsOn])}</Small> : null}
      <Small>
        {r.signers.length
          ? TEXT.signedBy(listWords(r.signers.map((s) => SIDE_WORDS[s].toLowerCase())))
          : TEXT.noSignaturesNeededItOnly}
      </Small>
      {error ? <Trouble error={error} /> : null}
      <ActError of={waive} />
      <Actions>
        {packetId ? (
          <Button onPress={() => router.push(`/packets/${packetId}`)}>{TEXT.openThePacket}</Button>
        ) : r.state === 'open' && documentId ? (
          <Button
            busy={busy}
            onPress={() =>
              act({
                id: r.ruleId,
                dealId: deal.id,
                title: r.title,
                act: { do: 'prepare', ruleId: r.ruleId, documentId, name: r.title },
              })
            }
          >
            {TEXT.putIntoAPacket}
          </Button>
        ) : null}
        {r.state === 'open' && reason === null ? (
          <Button kind="quiet" onPress={() => setReason('')} testID="waive">
            {TEXT.waive}
          </Button>
        ) : null}
        {r.state === 'waived' ? (
          <Button kind="quiet" busy={unwaive.isPending} onPress={() => unwaive.mutate(r.ruleId)} testID="unwaive">
            {TEXT.requireItAgain}
          </Button>
        ) : null}
      </Actions>
      {reason !== null && r.state === 'open' ? (
        <Stack gap={8}>
          <Input
            label={TEXT.reasonForWaiving}
            value={reason}
            onChangeText={setReason}
            maxLength={300}
            testID="waive-reason"
          />
          <Row gap={8} align="stretch">
            <Button
              kind="main"
              disabled={!reason.trim()}
              busy={waive.isPending}
              onPress={() =>
                waive.mutate({ ruleId: r.ruleId, reason: reason.trim() }, { onSuccess: () => setReason(null) })
              }
              testID="waive-now"
            >
              {TEXT.waive}
            </Button>
            <Button onPress={() => setReason(null)}>{TEXT.cancel}</Button>
          </Row>
        </Stack>
      ) : null}
    </Stack>
  );
}
