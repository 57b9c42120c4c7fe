/** The form's part of its desk: roles, name, last day, editions. */
import { router } from 'expo-router';
import { useState } from 'react';
import { Linking, View } from 'react-native';
import { urlOf } from '@gatepath/contract/paths';
import { shortDay } from '@gatepath/core/calendar';
import { editsToRemoveParty, type DraftEdit } from '@gatepath/core/packet';
import { DOCUMENT_TYPES, TYPE_WORDS, type DocumentType } from '@gatepath/core/reading';
import { newSlot, slotName } from '@gatepath/core/shelf';
import { SIDE_WORDS, SIDES, count, type Side } from '@gatepath/core/text';
import { call, newId } from '../../api/client';
import { useShelfActs, useShelfItem } from '../../api/shelf-hooks';
import { DayField } from '../../ui/day-field';
import { LateInput } from '../../ui/late-input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { ActError, Button, Card, IconButton } from '../../ui/pieces';
import { Body, Heading, Small } from '../../ui/text';
import { slotToken } from '../../ui/slot-token';
import { Token } from '../../ui/token';
import { countStops } from '../desk/desk-state';
import { ChangedPaper } from './changed-paper';
import { Sharing } from './sharing';
import type { DraftHandle } from '../desk/use-draft';
import { useDesk, useOnDesk } from '../desk/use-desk';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

/** Puts the form on the shelf: the main act of its desk. */
export function PutOnShelf() {
  const { id, ready, saved, version, stops } = useDesk((s) => ({
    id: s.packet.id,
    ready: s.ready,
    saved: s.saving.state === 'saved',
    version: s.base.version,
    stops: countStops(s),
  }));
  const item = useShelfItem(id);
  const { put } = useShelfActs(id);
  const there = !!item.data?.edition && !item.data.changed;
  return (
    <Button
      kind="main"
      disabled={!ready || there || stops > 0 || !saved}
      busy={put.isPending}
      onPress={() => put.mutate(version)}
      testID="put-on-shelf"
    >
      {there ? TEXT.onTheShelfEdition(item.data?.edition ?? 1) : TEXT.putOnTheShelf}
    </Button>
  );
}

export function FormPart() {
  const on = useOnDesk();
  const { id } = on.packet;
  return (
    <Stack gap={12}>
      <Heading>{TEXT.roles}</Heading>
      <Small>{TEXT.placesBelongToRoles}</Small>
      <Roles on={on} />
      <About on={{ id, draft: on.draft, edit: on.edit }} />
      <ChangedPaper />
      <SharingOf id={id} />
      <Editions id={id} />
    </Stack>
  );
}

function SharingOf({ id }: { id: string }) {
  const item = useShelfItem(id);
  return item.data ? <Sharing item={item.data} /> : null;
}

/** The roles of a form or kit, with adding and removing. */
export function Roles({ on: { draft, edit } }: { on: Pick<DraftHandle, 'draft' | 'edit'> }) {
  const ink = draft.parties.reduce((n, x) => Math.max(n, x.ink + 1), 0);
  const add = (kind: 'one' | 'every', side: Side, ordinal: number) => {
    const item = newSlot(kind, side, ordinal, newId(), ink);
    const gate = draft.gates[draft.gates.length - 1];
    const edits: DraftEdit[] = [{ op: 'put', list: 'parties', item }];
    if (gate && item.act !== 'copy')
      edits.push({ op: 'put', list: 'gates', item: { ...gate, partyIds: [...gate.partyIds, item.id] } });
    edit(edits);
  };
  const next = (side: Side) =>
    draft.parties.filter((x) => x.side === side && x.slot !== 'every').reduce((n, x) => Math.max(n, x.ordinal), 0) + 1;
  const hasEvery = (side: Side) => draft.parties.some((x) => x.side === side && x.slot === 'every');
  return (
    <Stack gap={4}>
      {draft.parties.map((x) => (
        <Row key={x.id} testID="role-row" gap={8} style={{ minHeight: 46 }}>
          <Token name={x.name} ink={x.ink} letters={slotToken(x)} size={32} />
          <Body grow>{x.name}</Body>
          <IconButton
            name="trash"
            label={TEXT.takeOutWithItsMarks(x.name)}
            onPress={() => edit(editsToRemoveParty(draft, x.id))}
          />
        </Row>
      ))}
      <DropMenu
        anchor={(open) => (
          <Button icon="plus" onPress={open} fit testID="add-role">
            {TEXT.addARole}
          </Button>
        )}
      >
        {SIDES.filter((s) => s !== 'other').flatMap((side) => [
          <MenuItem
            key={side}
            title={slotName('one', side, next(side))}
            onPress={() => add('one', side, next(side))}
          />,
          ...(hasEvery(side) || ['listing_broker', 'buyer_broker', 'manager'].includes(side)
            ? []
            : [
                <MenuItem
                  key={TEXT.everySideWithin(side)}
                  title={TEXT.everySide(SIDE_WORDS[side].toLowerCase())}
                  onPress={() => add('every', side, 1)}
                />,
              ]),
        ])}
      </DropMenu>
    </Stack>
  );
}

/** The form's name, type of paper, and the last day of this edition. */
export function About({ on: { id, draft, edit } }: { on: Pick<DraftHandle, 'draft' | 'edit'> & { id: string } }) {
  const item = useShelfItem(id);
  const { set } = useShelfActs(id);
  const paper = item.data?.documents.find((d) => d.id === draft.documents[0]?.id);
  const setType = async (type: DocumentType) => {
    if (!paper) return;
    await call('setDocument', { params: { documentId: paper.id }, body: { type } });
    await item.refetch();
  };
  return (
    <Card>
      <LateInput
        label={TEXT.nameOfTheForm}
        value={draft.name}
        onSave={(value) => value.trim() && edit([{ op: 'set', field: 'name', value }])}
        testID="form-name"
      />
      {paper ? (
        <DropMenu
          anchor={(open) => (
            <Button onPress={open} fit testID="form-type">
              {TEXT.type(TYPE_WORDS[paper.type])}
            </Button>
          )}
        >
          {DOCUMENT_TYPES.map((t) => (
            <MenuItem key={t} title={TYPE_WORDS[t]} onPress={() => void setType(t)} />
          ))}
        </DropMenu>
      ) : null}
      <DayField
        label={TEXT.thisEditionMayBeUsed}
        value={item.data?.endsOn ?? ''}
        onChange={(day) => set.mutate({ endsOn: day || null })}
        testID="form-ends"
      />
      <ActError of={set} />
    </Card>
  );
}

/** The editions, the kits the form is in, and deleting it. */
export function Editions({ id }: { id: string }) {
  const item = useShelfItem(id);
  const { set, drop } = useShelfActs(id);
  const [asking, setAsking] = useState(false);
  if (!item.data) return null;
  const { editions, since, kits, retired, edition } = item.data;
  return (
    <Card>
      <Heading>{TEXT.editions}</Heading>
      {since.length ? <Small>{TEXT.inPreparation(since.join(' '))}</Small> : null}
      {editions.length ? (
        editions.map((e) => (
          <View key={e.edition}>
            <Small>{`${e.edition}: ${e.by}, ${shortDay(e.at.slice(0, 10), '')}`}</Small>
            {e.changes.length ? <Small style={{ paddingLeft: 14 }}>{e.changes.join(' ')}</Small> : null}
          </View>
        ))
      ) : (
        <Small>{TEXT.noneYetPacketsUseEditions}</Small>
      )}
      {kits.length ? <Small>{TEXT.inWord(count(kits.length, 'kit'), kits.map((k) => k.name).join(', '))}</Small> : null}
      <Button
        kind="quiet"
        icon="download"
        onPress={() => void Linking.openURL(urlOf('shelfBundle', { shelfId: id }))}
        fit
        testID="pass-on"
      >
        {TEXT.exportAsAFile}
      </Button>
      {edition ? (
        <Button kind="quiet" onPress={() => set.mutate({ retired: !retired })} fit>
          {retired ? TEXT.restore : TEXT.retire}
        </Button>
      ) : asking ? (
        <Row gap={8} align="stretch">
          <Button
            kind="stop"
            busy={drop.isPending}
            onPress={() => drop.mutate(undefined, { onSuccess: () => router.replace('/shelf') })}
          >
            {TEXT.throwAway}
          </Button>
          <Button onPress={() => setAsking(false)}>{TEXT.keep}</Button>
        </Row>
      ) : (
        <Button kind="quiet" onPress={() => setAsking(true)} fit>
          {TEXT.deleteWord}
        </Button>
      )}
      <ActError of={drop} />
    </Card>
  );
}
