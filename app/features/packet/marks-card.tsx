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

/** Returns the places of one party on a page, with the changes that are not sent yet. */
function useMarks({ sent, look }: Pick<Props, 'sent' | 'look'>, firstParty: string) {
  const [partyId, setParty] = useState(firstParty);
  const [held, hold] = useState<string | null>(null);
  const [put, setPut] = useState<Mark[]>([]);
  const [gone, setGone] = useState<string[]>([]);
  const doc = sent.plan.documents.find((d) => d.id === look.documentId);
  const size = doc?.pages[look.page - 1] ?? { width: 0, height: 0 };
  const onPage = sent.plan.marks.filter((m) => m.documentId === look.documentId && m.page === look.page);
  const filled = new Set(sent.fills.map((f) => f.markId));
  const changed = new Set([...gone, ...put.map((m) => m.id)]);
  const mine = [...onPage.filter((m) => m.partyId === partyId && !changed.has(m.id)), ...put];
  const save = (m: Mark) => setPut([...put.filter((x) => x.id !== m.id), m]);
  return {
    doc,
    partyId,
    held,
    hold,
    put,
    gone,
    mine,
    others: onPage.filter((m) => m.partyId !== partyId && !filled.has(m.id)),
    selected: mine.find((m) => m.id === held),
    choose(id: string) {
      setParty(id);
      setPut([]);
      setGone([]);
      hold(null);
    },
    moveTo(m: Mark, x: number, y: number, w = m.rect.w, h = m.rect.h) {
      save({ ...m, rect: { x: within(x, size.width - w), y: within(y, size.height - h), w, h } });
    },
    add(kind: MarkKind) {
      const rect = { x: size.width / 2 - 60, y: size.height / 2, ...KINDS[kind].size };
      const m: Mark = {
        id: newId(),
        documentId: look.documentId,
        page: look.page,
        kind,
        partyId,
        rect,
        required: true,
      };
      save(m);
      hold(m.id);
    },
    remove(m: Mark) {
      setPut(put.filter((x) => x.id !== m.id));
      if (sent.plan.marks.some((x) => x.id === m.id)) setGone([...gone, m.id]);
      hold(null);
    },
  };
}
type Marks = ReturnType<typeof useMarks>;

export function MarksCard({ packet, sent, look, onClose }: Props) {
  const { change } = usePacketActions(packet.id);
  const people = movable(sent, look.documentId);
  const marks = useMarks({ sent, look }, people[0]?.id ?? '');
  const { doc, partyId, selected } = marks;
  const party = people.find((p) => p.id === partyId);
  if (!party || !doc?.pages[look.page - 1]) return null;
  const send = (despiteWarnings: boolean) =>
    change.mutate(
      { type: 'change_marks', partyId, put: marks.put.map(asSent), drop: marks.gone, despiteWarnings },
      { onSuccess: onClose },
    );
  const covers = change.error instanceof ApiError && change.error.code === 'warnings';
  return (
    <Card testID="marks-card">
      <Heading>{TEXT.placesOnPage(look.page, doc.name)}</Heading>
      <Small>{TEXT.onlyForPeopleWhoHave}</Small>
      <Which people={people} name={firstName(party.name)} marks={marks} />
      <CorrectionPage
        packet={packet}
        sent={sent}
        look={look}
        hint={selected ? TEXT.tapWhereItBelongs : TEXT.chooseOneOfThePlaces}
        onTouch={({ x, y }) => selected && marks.moveTo(selected, x - selected.rect.w / 2, y - selected.rect.h / 2)}
        over={(scale) => <Faces sent={sent} marks={marks} scale={scale} />}
      />
      {selected ? <MoveIt mark={selected} marks={marks} /> : null}
      <DropMenu
        anchor={(open) => (
          <Button icon="plus" onPress={open} fit testID="put-in">
            {TEXT.addOne(firstName(party.name))}
          </Button>
        )}
      >
        {NEW.map((k) => (
          <MenuItem key={k} title={KINDS[k].word} onPress={() => marks.add(k)} />
        ))}
      </DropMenu>
      <DoOrLeave
        label={TEXT.changeThePlaces}
        busy={change.isPending}
        disabled={!marks.put.length && !marks.gone.length}
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

/** Chooses the party, and one of their places. */
function Which({ people, name, marks }: { people: ReturnType<typeof movable>; name: string; marks: Marks }) {
  const { mine } = marks;
  return (
    <>
      {people.length > 1 ? (
        <Choice
          wrap
          label={TEXT.whosePlaces}
          value={marks.partyId}
          options={people.map((p) => ({ value: p.id, label: firstName(p.name) }))}
          onChange={marks.choose}
        />
      ) : null}
      {mine.length ? (
        <Choice
          wrap
          label={TEXT.placesOf(name)}
          value={marks.held ?? ''}
          options={mine.map((m, i) => ({ value: m.id, label: `${i + 1}. ${KINDS[m.kind].word}` }))}
          onChange={marks.hold}
        />
      ) : (
        <Body>{TEXT.hasNothingToDo(name)}</Body>
      )}
    </>
  );
}

/** The places on the page, the party's own and those of others. */
function Faces({ sent, marks, scale }: Pick<Props, 'sent'> & { marks: Marks; scale: number }) {
  return (
    <View aria-hidden style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}>
      {[...marks.others, ...marks.mine].map((m) => (
        <AtRect key={m.id} rect={m.rect} scale={scale}>
          <MarkFace
            rect={m.rect}
            scale={scale}
            kind={m.kind}
            ink={sent.plan.parties.find((p) => p.id === m.partyId)?.ink ?? null}
            required={m.required}
            selected={m.id === marks.held}
          />
        </AtRect>
      ))}
    </View>
  );
}

/** Buttons that move, resize and remove the selected place. */
function MoveIt({ mark, marks: { moveTo, remove } }: { mark: Mark; marks: Marks }) {
  const { x, y, w } = mark.rect;
  const narrower = Math.max(KINDS[mark.kind].least.w, w - STEP);
  return (
    <Row wrap role="group" aria-label={TEXT.moveIt}>
      <IconButton name="arrow-left" label={TEXT.toTheLeft} onPress={() => moveTo(mark, x - STEP, y)} />
      <IconButton name="arrow-up" label={TEXT.up} onPress={() => moveTo(mark, x, y - STEP)} />
      <IconButton name="arrow-down" label={TEXT.down} onPress={() => moveTo(mark, x, y + STEP)} />
      <IconButton name="arrow-right" label={TEXT.toTheRight} onPress={() => moveTo(mark, x + STEP, y)} />
      <IconButton name="minus" label={TEXT.narrower} onPress={() => moveTo(mark, x, y, narrower)} />
      <IconButton name="plus" label={TEXT.wider} onPress={() => moveTo(mark, x, y, w + STEP)} />
      <Button kind="quiet" onPress={() => remove(mark)} testID="take-away">
        {TEXT.takeItAway}
      </Button>
    </Row>
  );
}

/** Returns a mark without what rules and changes add: the server knows of which mark it comes. */
function asSent({ redlineId: _r, ruleId: _u, ...m }: Mark) {
  return m;
}

const within = (value: number, most: number) => Math.round(Math.max(0, Math.min(value, most)) * 2) / 2;
