/** Acts on the selected deals, in a bar at the foot. */
import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { DealsActBody, DealSummary } from '@gatepath/contract';
import { count } from '@gatepath/core/text';
import { useAct } from '../../api/act';
import { keys } from '../../api/keys';
import { call } from '../../api/client';
import { useFirm } from '../../api/hooks';
import { usePalette } from '../../ui/hooks';
import { Input } from '../../ui/input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { ActError, Button } from '../../ui/pieces';
import { Small, Strong } from '../../ui/text';
import { UseKitOn } from '../shelf/use-kit-on';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

/** Returns a mutation that applies one act to all selected deals; `onDone` is called if every deal was changed. */
function useDealsAct(deals: DealSummary[], onDone: () => void) {
  return useAct(
    (body: Omit<DealsActBody, 'dealIds'>) => call('dealsAct', { body: { ...body, dealIds: deals.map((d) => d.id) } }),
    {
      renews: [keys.deals],
      onDone: ({ left }) => {
        if (!left.length) onDone();
      },
    },
  );
}
type DealsAct = ReturnType<typeof useDealsAct>;

export function InHand({ deals, onDone }: { deals: DealSummary[]; onDone: () => void }) {
  const p = usePalette();
  const [tagging, setTagging] = useState(false);
  const act = useDealsAct(deals, onDone);
  const left = act.data?.left ?? [];
  return (
    <Stack
      testID="in-hand"
      gap={8}
      style={{
        position: 'absolute',
        left: 0,
        right: 0,
        bottom: 0,
        padding: 12,
        backgroundColor: p.sheet,
        borderTopWidth: 1,
        borderColor: p.rule,
      }}
    >
      <ActError of={act} />
      {left.length ? (
        <View role="status">
          <Small>
            {TEXT.doneWithNot(
              act.data?.done ?? 0,
              left
                .slice(0, 3)
                .map((l) => `${l.address} (${l.why})`)
                .join(', '),
              left.length > 3 ? TEXT.andMore(left.length - 3) : '',
            )}
          </Small>
        </View>
      ) : null}
      <Row gap={8} wrap style={{ maxWidth: 1460, width: '100%', alignSelf: 'center' }}>
        <Strong>{TEXT.selected(count(deals.length, 'deal'))}</Strong>
        {tagging ? (
          <Tagging act={act} onClose={() => setTagging(false)} />
        ) : (
          <DealsActs deals={deals} act={act} onTag={() => setTagging(true)} onClear={onDone} />
        )}
      </Row>
    </Stack>
  );
}

/** Asks for the tag. */
function Tagging({ act, onClose }: { act: DealsAct; onClose: () => void }) {
  const [tag, setTag] = useState('');
  return (
    <>
      <View style={{ width: 220 }}>
        <Input label={TEXT.tag} value={tag} onChangeText={setTag} testID="tag-text" />
      </View>
      <Button
        disabled={!tag.trim()}
        busy={act.isPending}
        onPress={() => act.mutate({ act: 'tag', tag: tag.trim() }, { onSuccess: onClose })}
        testID="tag-now"
      >
        {TEXT.tagThem}
      </Button>
      <Button kind="quiet" onPress={onClose}>
        {TEXT.cancel}
      </Button>
    </>
  );
}

/** What can be done with all of them. */
function DealsActs(o: { deals: DealSummary[]; act: DealsAct; onTag: () => void; onClear: () => void }) {
  const { deals, act } = o;
  const firm = useFirm();
  const archived = deals.every((d) => d.archivedAt);
  return (
    <>
      <Button kind="main" busy={act.isPending} onPress={() => act.mutate({ act: 'nudge' })} testID="hand-nudge">
        {TEXT.nudgeThePeopleTheyWait}
      </Button>
      <Button onPress={o.onTag}>{TEXT.tag}</Button>
      <UseKitOn deals={deals} />
      {deals.every((d) => d.kind === 'tenancy') ? (
        <Button
          onPress={() => router.push(`/notices/new?deals=${deals.map((d) => d.id).join(',')}`)}
          testID="hand-notice"
        >
          {TEXT.sendANotice}
        </Button>
      ) : null}
      <DropMenu anchor={(open) => <Button onPress={open}>{TEXT.assignToAColleague}</Button>}>
        {(firm.data?.members ?? []).map((m) => (
          <MenuItem key={m.id} title={m.name} onPress={() => act.mutate({ act: 'give', memberId: m.id })} />
        ))}
      </DropMenu>
      <Button onPress={() => act.mutate({ act: archived ? 'take_out' : 'archive' })} testID="hand-archive">
        {archived ? TEXT.restoreFromArchive : TEXT.archive}
      </Button>
      <Button kind="quiet" onPress={o.onClear}>
        {TEXT.clearTheSelection}
      </Button>
    </>
  );
}
