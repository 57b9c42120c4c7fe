/** Who in the firm may use a form or kit and who may change it; and what those see who may only use it. */
import { router } from 'expo-router';
import { View } from 'react-native';
import type { ShelfItemView } from '@gatepath/contract';
import { useAct } from '../../api/act';
import { keys } from '../../api/keys';
import { call } from '../../api/client';
import { useFirm } from '../../api/hooks';
import { useShelfActs } from '../../api/shelf-hooks';
import { DropMenu, MenuItem } from '../../ui/menu';
import { ActError, Button, Card, IconButton, Page } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { SlotPath } from './slot-path';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

/** Makes one's own copy and opens it. */
export function useCopy(item: Pick<ShelfItemView, 'id' | 'what'>) {
  return useAct(() => call('copyShelfItem', { params: { shelfId: item.id } }), {
    renews: [keys.shelf],
    onDone: (copy) => router.push(item.what === 'kit' ? `/shelf/${copy.id}` : `/forms/${copy.id}`),
  });
}

export function Sharing({ item }: { item: ShelfItemView }) {
  const firm = useFirm();
  const { set } = useShelfActs(item.id);
  const copy = useCopy(item);
  const members = firm.data?.members ?? [];
  const part = (label: string, chosen: string[] | null, save: (ids: string[] | null) => void, test: string) => (
    <Stack gap={4}>
      <Switch
        label={TEXT.everyoneInTheFirmMay(label)}
        on={chosen === null}
        onChange={(all) => save(all ? null : [])}
        testID={test}
      />
      {chosen === null
        ? null
        : members
            .filter((m) => m.id !== item.owner.id)
            .map((m) => (
              <View key={m.id} style={{ paddingLeft: 24 }}>
                <Switch
                  label={m.name}
                  on={chosen.includes(m.id)}
                  onChange={(on) => save(on ? [...chosen, m.id] : chosen.filter((x) => x !== m.id))}
                />
              </View>
            ))}
    </Stack>
  );
  return (
    <Card testID="sharing">
      <Heading>{TEXT.owner}</Heading>
      <Small>{TEXT.ownsIt(item.owner.name)}</Small>
      {part(TEXT.useIt, item.users, (users) => set.mutate({ users }), 'all-use')}
      {part(TEXT.changeIt, item.makers, (makers) => set.mutate({ makers }), 'all-make')}
      <ActError of={set} />
      <ActError of={copy} />
      <Row align="stretch" wrap>
        <DropMenu
          anchor={(open) => (
            <Button kind="quiet" onPress={open}>
              {TEXT.transferIt}
            </Button>
          )}
        >
          {members
            .filter((m) => m.id !== item.owner.id)
            .map((m) => (
              <MenuItem key={m.id} title={TEXT.to(m.name)} onPress={() => set.mutate({ ownerId: m.id })} />
            ))}
        </DropMenu>
        <Button kind="quiet" busy={copy.isPending} onPress={() => copy.mutate()} testID="copy-item">
          {TEXT.makeACopy}
        </Button>
      </Row>
    </Card>
  );
}

/** Shown for what one may use and not change. */
export function NotOwn({ item }: { item: ShelfItemView }) {
  const copy = useCopy(item);
  return (
    <Page max={620}>
      <Row gap={8}>
        <IconButton name="arrow-left" label={TEXT.backToTheShelf} onPress={() => router.navigate('/shelf')} />
        <Title style={{ flex: 1 }}>{item.name}</Title>
      </Row>
      <Card>
        <Body>{TEXT.ownsItYouCanUse(item.owner.name)}</Body>
        {item.forms.map((f, i) => (
          <Strong key={f.id}>{`${i + 1}. ${f.name}`}</Strong>
        ))}
        <SlotPath slots={item.slots} gates={item.gates} />
        <ActError of={copy} />
        <Button busy={copy.isPending} onPress={() => copy.mutate()} fit testID="copy-item">
          {TEXT.makeYourOwnCopy}
        </Button>
      </Card>
    </Page>
  );
}
