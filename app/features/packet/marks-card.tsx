/** Places on a page of a packet at a gate: moved, added, removed, for people who have done nothing yet. */
import { useState } from 'react';
import { View } from 'react-native';
import type { PacketView, SentView } from '@gatepath/contract';
import { hasDocument, KINDS, MARK_KINDS, puts, type Mark, type MarkKind } from '@gatepath/core/packet';
import { firstName } from '@gatepath/core/text';
import { ApiError, newId } from '../../api/client';
import { usePacketActions } from '../../api/hooks';
import { DoOrLeave } from '../../ui/do-or-leave';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, Card, Choice, IconButton } from '../../ui/pieces';
import { Body, Heading, Small } from '../../ui/text';
import { AtRect, MarkFace } from '../pages/mark-box';
import { CorrectionPage } from './correction-page';
import { isUntouched } from './people-changes';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

interface Props {
  packet: PacketView;
  sent: SentView;
  look: { documentId: string; page: number };
  onClose: () => void;
}

/** Points a mark moves or grows by per touch. */
const STEP = 6;
const NEW: MarkKind[] = MARK_KINDS.filter((k) => KINDS[k].filled.by !== 'sender' && k !== 'choice' && k !== 'list');

/** Returns the parties whose places on a document can still be changed. */
export const movable = (sent: SentView, documentId: string) =>
  sent.plan.parties.filter((p) => puts(p) && hasDocument(p, documentId) && isUntouched(sent, p.id));

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function MarksCard({ packet, sent, look, onClose }: Props) {
  const { change } = usePacketActions(packet.id);
  const people = movable(sent, look.documentId);
  const [partyId, setParty] = useState(people[0]?.id ?? '');
  const [held, setHeld] = useState<string | null>(null);
  const [put, setPut] = useState<Mark[]>([]);
  const [gone, setGone] = useState<string[]>([]);
  const party = people.find((p) => p.id === partyId);
  const doc = sent.plan.documents.find((d) => d.id === look.documentId);
  const size = doc?.pages[look.page - 1];
  if (!party || !doc || !size) return null;
  const filled = new Set(sent.fills.map((f) => f.markId));
  const others = sent.plan.marks.filter(
    (m) => m.documentId === doc.id && m.page === look.page && m.partyId !== partyId && !filled.has(m.id),
  );
  const changed = new Set([...gone, ...put.map((m) => m.id)]);
  const mine = [
    ...sent.plan.marks.filter(
      (m) => m.partyId === partyId && m.documentId === doc.id && m.page === look.page && !changed.has(m.id),
    ),
    ...put,
  ];
  const hand = mine.find((m) => m.id === held);
  const keep = (m: Mark) => setPut([...put.filter((x) => x.id !== m.id), m]);
  const moveTo = (m: Mark, x: number, y: number, w = m.rect.w, h = m.rect.h) =>
    keep({
      ...m,
      rect: { x: within(x, size.width - w), y: within(y, size.height - h), w, h },
    });
  const begin = (kind: MarkKind) => {
    const m: Mark = {
      id: newId(),
      documentId: doc.id,
      page: look.page,
      kind,
      partyId,
      rect: { x: size.width / 2 - 60, y: size.height / 2, ...KINDS[kind].size },
      required: true,
    };
    keep(m);
    setHeld(m.id);
  };
  const takeAway = (m: Mark) => {
    setPut(put.filter((x) => x.id !== m.id));
    if (sent.plan.marks.some((x) => x.id === m.id)) setGone([...gone, m.id]);
    setHeld(null);
  };
  const send = (despiteWarnings: boolean) =>
    change.mutate(
      { type: 'change_marks', partyId, put: put.map(asSent), drop: gone, despiteWarnings },
      { onSuccess: onClose },
    );
  const covers = change.error instanceof ApiError && change.error.code === 'warnings';
  return (
    <Card testID="marks-card">
      <Heading>{TEXT.placesOnPage(look.page, doc.name)}</Heading>
      <Small>{TEXT.onlyForPeopleWhoHave}</Small>
      {people.length > 1 ? (
        <Choice
          wrap
          label={TEXT.whosePlaces}
          value={partyId}
          options={people.map((p) => ({ value: p.id, label: firstName(p.name) }))}
          onChange={(id) => {
            setParty(id);
            setPut([]);
            setGone([]);
            setHeld(null);
          }}
        />
      ) : null}
      {mine.length ? (
        <Choice
          wrap
          label={TEXT.placesOf(firstName(party.name))}
          value={held ?? ''}
          options={mine.map((m, i) => ({ value: m.id, label: `${i + 1}. ${KINDS[m.kind].word}` }))}
          onChange={setHeld}
        />
      ) : (
        <Body>{TEXT.hasNothingToDo(firstName(party.name))}</Body>
      )}
      <CorrectionPage
        packet={packet}
        sent={sent}
        look={look}
        hint={hand ? TEXT.tapThePageWhere2 : TEXT.chooseOneOfThePlaces}
        onTouch={({ x, y }) => hand && moveTo(hand, x - hand.rect.w / 2, y - hand.rect.h / 2)}
        over={(scale) => (
          <View aria-hidden style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}>
            {[...others, ...mine].map((m) => (
              <AtRect key={m.id} rect={m.rect} scale={scale}>
                <MarkFace
                  rect={m.rect}
                  scale={scale}
                  kind={m.kind}
                  ink={sent.plan.parties.find((p) => p.id === m.partyId)?.ink ?? null}
                  required={m.required}
                  selected={m.id === held}
                />
              </AtRect>
            ))}
          </View>
        )}
      />
      {hand ? (
        <Row wrap role="group" aria-label={TEXT.moveIt}>
          <IconButton
            name="arrow-left"
            label={TEXT.toTheLeft}
            onPress={() => moveTo(hand, hand.rect.x - STEP, hand.rect.y)}
          />
          <IconButton name="arrow-up" label={TEXT.up} onPress={() => moveTo(hand, hand.rect.x, hand.rect.y - STEP)} />
          <IconButton
            name="arrow-down"
            label={TEXT.down}
            onPress={() => moveTo(hand, hand.rect.x, hand.rect.y + STEP)}
          />
          <IconButton
            name="arrow-right"
            label={TEXT.toTheRight}
            onPress={() => moveTo(hand, hand.rect.x + STEP, hand.rect.y)}
          />
          <IconButton
            name="minus"
            label={TEXT.narrower}
            onPress={() =>
              moveTo(hand, hand.rect.x, hand.rect.y, Math.max(KINDS[hand.kind].least.w, hand.rect.w - STEP))
            }
          />
          <IconButton
            name="plus"
            label={TEXT.wider}
            onPress={() => moveTo(hand, hand.rect.x, hand.rect.y, hand.rect.w + STEP)}
          />
          <Button kind="quiet" onPress={() => takeAway(hand)} testID="take-away">
            {TEXT.takeItAway}
          </Button>
        </Row>
      ) : null}
      <DropMenu
        anchor={(open) => (
          <Button icon="plus" onPress={open} fit testID="put-in">
            {TEXT.addOne(firstName(party.name))}
          </Button>
        )}
      >
        {NEW.map((k) => (
          <MenuItem key={k} title={KINDS[k].word} onPress={() => begin(k)} />
        ))}
      </DropMenu>
      <DoOrLeave
        label={TEXT.changeThePlaces}
        busy={change.isPending}
        disabled={!put.length && !gone.length}
        error={change.error}
        onDo={() => send(false)}
        onLeave={onClose}
        testID="places-now"
      />
      {covers ? (
        <Button onPress={() => send(true)} fit testID="places-anyway">
          {TEXT.keepItThereAnyway}
        </Button>
      ) : null}
    </Card>
  );
}

/** Returns a mark without what rules and changes add: the server knows of which mark it comes. */
function asSent({ redlineId: _r, ruleId: _u, ...m }: Mark) {
  return m;
}

const within = (value: number, most: number) => Math.round(Math.max(0, Math.min(value, most)) * 2) / 2;
