/** A kit: its forms, its roles on their path, its message and sending time, and what its users cannot change. */
import { router, useLocalSearchParams } from 'expo-router';
import { View } from 'react-native';
import type { ShelfItemView } from '@gatepath/contract';
import { USUAL_SCHEDULE, type Schedule, type SendingTime } from '@gatepath/core/calendar';
import type { DraftEdit } from '@gatepath/core/packet';
import { LOCK_WORDS, LOCKS, type Lock } from '@gatepath/core/shelf';
import { count, upperFirst } from '@gatepath/core/text';
import { useShelf, useShelfActs, useShelfItem } from '../../api/shelf-hooks';
import { usePalette, useWide } from '../../ui/hooks';
import { HourMenu } from '../../ui/hour-menu';
import { Icon } from '../../ui/icon';
import { itemsOf } from '../../ui/list-page';
import { DropMenu, MenuItem } from '../../ui/menu';
import { NotReady, isReady } from '../../ui/not-ready';
import { NumberField } from '../../ui/number-field';
import { ActError, Button, Card, IconButton, Note, Page } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body, Heading, Small, Title } from '../../ui/text';
import { WordsCard } from '../desk/packet-cards';
import { NudgeWords } from '../desk/nudge-words';
import { PathOfDraft } from '../desk/path-panel';
import { ToldCard } from '../desk/told';
import { useDraft, type DraftHandle } from '../desk/use-draft';
import { Editions, Roles } from './form-part';
import { NotOwn, Sharing } from './sharing';
import { SHELF_HOME } from './home';
import { statusWords } from './shelf-place';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export function KitPlace() {
  const { kitId } = useLocalSearchParams<{ kitId: string }>();
  const item = useShelfItem(kitId);
  if (!isReady(item)) return <NotReady query={item} what={TEXT.theKit} />;
  return item.data.own ? <Kit key={item.data.id} kit={item.data} /> : <NotOwn item={item.data} />;
}

function Kit({ kit }: { kit: ShelfItemView }) {
  const wide = useWide();
  const handle = useDraft(kit, SHELF_HOME);
  const { put } = useShelfActs(kit.id);
  const there = kit.edition > 0 && !kit.changed;
  const column = { flex: 1, gap: 16, minWidth: 0 };
  const left = [
    <Forms key="forms" kit={kit} handle={handle} />,
    <Card key="roles">
      <Heading>{TEXT.roles}</Heading>
      <Roles on={handle} />
    </Card>,
    <Card key="path">
      <Heading>{TEXT.path}</Heading>
      <PathOfDraft on={{ ...handle, names: [] }} />
    </Card>,
  ];
  const right = [
    <WordsCard key="words" on={handle} nameLabel={TEXT.nameOfTheKitAndItsPackets} tags={TAGS} />,
    <Time key="time" kit={kit} handle={handle} />,
    <ToldCard key="told" on={handle} />,
    <Locked key="locks" kit={kit} />,
    <Sharing key="sharing" item={kit} />,
    <Editions key="editions" id={kit.id} />,
  ];
  return (
    <Page max={wide ? 1160 : 760}>
      <Row gap={8}>
        <IconButton name="arrow-left" label={TEXT.backToTheShelf} onPress={() => router.navigate('/shelf')} />
        <Stack grow>
          <Title numberOfLines={2}>{handle.draft.name}</Title>
          <Small testID="saving">{TEXT.kit(statusWords(kit), handle.saving.sentence)}</Small>
        </Stack>
      </Row>
      <ActError of={put} />
      {kit.forms.some((f) => f.retired) ? <Note tone="warn" title={TEXT.aFormOfThisKit} /> : null}
      <Button
        kind="main"
        disabled={there || handle.saving.state !== 'saved'}
        busy={put.isPending}
        onPress={() => put.mutate(handle.version)}
        testID="put-on-shelf"
        fit
      >
        {there ? TEXT.onTheShelfEdition(kit.edition) : TEXT.putOnTheShelf}
      </Button>
      {wide ? (
        <Row gap={16} align="start">
          <View style={column}>{left}</View>
          <View style={column}>{right}</View>
        </Row>
      ) : (
        [...left, ...right]
      )}
    </Page>
  );
}

type Part = { kit: ShelfItemView; handle: DraftHandle };

/** The forms of a kit, in order. */
function Forms({ kit, handle: { draft, edit } }: Part) {
  const all = useShelf('form', '');
  const nameOf = (id: string) =>
    kit.forms.find((f) => f.id === id)?.name ?? itemsOf(all).find((f) => f.id === id)?.name;
  const addable = itemsOf(all).filter((f) => f.edition > 0 && !draft.documents.some((d) => d.id === f.id));
  const put = (id: string, index?: number): DraftEdit => ({
    op: 'put',
    list: 'documents',
    item: { id },
    ...(index === undefined ? {} : { index }),
  });
  return (
    <Card>
      <Heading>{TEXT.forms}</Heading>
      {draft.documents.map((d, i) => {
        const name = nameOf(d.id) ?? 'A form';
        return (
          <Row key={d.id}>
            <Body grow>{`${i + 1}. ${name}`}</Body>
            <IconButton
              name="arrow-up"
              label={TEXT.earlier(name)}
              disabled={i === 0}
              onPress={() => edit([put(d.id, i - 1)])}
            />
            <IconButton
              name="trash"
              label={TEXT.takeOutOfTheKit(name)}
              disabled={draft.documents.length === 1}
              onPress={() => edit([{ op: 'drop', list: 'documents', id: d.id }])}
            />
          </Row>
        );
      })}
      {addable.length || all.hasNextPage ? (
        <DropMenu
          anchor={(open) => (
            <Button icon="plus" onPress={open} fit testID="add-form">
              {TEXT.addAForm}
            </Button>
          )}
        >
          {addable.map((f) => (
            <MenuItem key={f.id} title={f.name} onPress={() => edit([put(f.id)])} />
          ))}
          {all.hasNextPage ? <MenuItem title={TEXT.moreForms} onPress={() => void all.fetchNextPage()} /> : null}
        </DropMenu>
      ) : null}
    </Card>
  );
}

/** The morning of the next business day. */
const FIRST_TIME = { days: 1, hour: 9 };

/** Some of the tags a kit's message may contain. */
const TAGS = ['address', 'city', 'price', 'seller 1'];

/** When packets made from the kit are sent: at once, or at an hour. */
function Sending({ value, onChange }: { value: SendingTime | null; onChange: (to: SendingTime | null) => void }) {
  return (
    <>
      <Switch
        label={TEXT.sendAtASetTime}
        on={value !== null}
        onChange={(on) => onChange(on ? FIRST_TIME : null)}
        testID="kit-sending"
      />
      {value ? (
        <>
          <Row gap={8} align="end">
            <Stack grow>
              <NumberField
                label={TEXT.businessDaysLater}
                value={value.days}
                min={0}
                max={60}
                onChange={(days) => onChange({ ...value, days })}
                testID="kit-sending-days"
              />
            </Stack>
            <HourMenu value={value.hour} onChange={(hour) => onChange({ ...value, hour })} testID="kit-sending-hour" />
          </Row>
          <Small>{TEXT.inANoticeToMany}</Small>
        </>
      ) : null}
    </>
  );
}

function Time({ kit, handle: { draft, edit } }: Part) {
  const { set } = useShelfActs(kit.id);
  const { nudge, sending } = draft.schedule;
  const setSchedule = (change: Partial<Schedule>) =>
    edit([{ op: 'set', field: 'schedule', value: { ...draft.schedule, ...change } }]);
  return (
    <Card>
      <Heading>{TEXT.time}</Heading>
      <Sending value={sending ?? null} onChange={(to) => setSchedule({ sending: to })} />
      <Switch
        label={TEXT.countTheLastDay}
        on={kit.lastIn !== null}
        onChange={(on) => set.mutate({ lastIn: on ? 7 : null })}
        testID="last-in"
      />
      {kit.lastIn === null ? null : (
        <NumberField
          label={TEXT.businessDaysAfterSending}
          value={kit.lastIn}
          min={1}
          max={365}
          onChange={(lastIn) => set.mutate({ lastIn })}
        />
      )}
      <Switch
        label={TEXT.nudgePeopleWhoHaveNot}
        on={nudge !== null}
        onChange={(on) => setSchedule({ nudge: on ? USUAL_SCHEDULE.nudge : null })}
        testID="nudges"
      />
      {nudge ? <NudgeWords nudge={nudge} onChange={(now) => setSchedule({ nudge: now })} /> : null}
      <Switch
        label={TEXT.peopleFurtherAlongThePath}
        on={draft.readAlong ?? false}
        onChange={(value) => edit([{ op: 'set', field: 'readAlong', value }])}
      />
      <ActError of={set} />
    </Card>
  );
}

/** What users of the kit cannot change. */
function Locked({ kit }: { kit: ShelfItemView }) {
  const p = usePalette();
  const { set } = useShelfActs(kit.id);
  const turn = (lock: Lock, on: boolean) => {
    const now = kit.locks.map((l) => l.lock).filter((l) => l !== lock);
    set.mutate({ locks: on ? [...now, lock] : now });
  };
  return (
    <Card>
      <Row gap={8}>
        <Icon name="lock" color={p.slate} size={20} />
        <Heading>{TEXT.lockedForPeopleWhoUse}</Heading>
      </Row>
      {LOCKS.map((lock) => {
        const by = kit.locks.find((l) => l.lock === lock)?.by;
        return (
          <Switch
            key={lock}
            label={upperFirst(LOCK_WORDS[lock])}
            on={by !== undefined}
            onChange={(on) => turn(lock, on)}
            testID={`lock-${lock}`}
            {...(by ? { hint: TEXT.lockedByWithin(by) } : {})}
          />
        );
      })}
      <Small>{TEXT.lockedWhatIsNotLocked(count(kit.locks.length, 'setting'))}</Small>
    </Card>
  );
}
