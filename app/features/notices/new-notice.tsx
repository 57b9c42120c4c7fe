/** A new notice: its kit. Homes are passed from where it was begun, or chosen next. */
import { router, useLocalSearchParams } from 'expo-router';
import { Pressable } from 'react-native';
import { count } from '@gatepath/core/text';
import { useNewNotice } from '../../api/notice-hooks';
import { useShelf } from '../../api/shelf-hooks';
import { usePalette } from '../../ui/hooks';
import { itemsOf } from '../../ui/list-page';
import { ActError, Button, IconButton, Loading, Page, Trouble } from '../../ui/pieces';
import { Body, Small, Strong, Title } from '../../ui/text';
import { SlotPath } from '../shelf/slot-path';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export function NewNotice() {
  const p = usePalette();
  const { deals } = useLocalSearchParams<{ deals?: string }>();
  const dealIds = [...new Set((deals ?? '').split(',').filter(Boolean))];
  const shelf = useShelf('kit', '');
  const begin = useNewNotice();
  const kits = itemsOf(shelf).filter((k) => k.edition > 0);
  return (
    <Page max={760}>
      <Row gap={4}>
        <IconButton name="arrow-left" label={TEXT.backToTheNotices} onPress={() => router.navigate('/notices')} />
        <Stack grow>
          {dealIds.length ? <Small>{TEXT.forWord(count(dealIds.length, 'home'))}</Small> : null}
          <Title>{TEXT.newNotice}</Title>
        </Stack>
      </Row>
      <Body>{TEXT.chooseTheKitToSend}</Body>
      {shelf.isPending ? <Loading what={TEXT.theKits} /> : null}
      {shelf.isError ? <Trouble error={shelf.error} retry={() => void shelf.refetch()} /> : null}
      {shelf.isSuccess && !kits.length ? <Body>{TEXT.noKit}</Body> : null}
      <ActError of={begin} />
      {kits.map((k) => (
        <Pressable
          key={k.id}
          role="link"
          testID="notice-kit"
          aria-label={TEXT.aNotice(k.name)}
          disabled={begin.isPending}
          onPress={() =>
            begin.mutate(
              { kitId: k.id, dealIds, filter: undefined },
              { onSuccess: (n) => router.replace(`/notices/${n.id}`) },
            )
          }
          style={{
            gap: 4,
            borderWidth: 1,
            borderColor: p.rule,
            borderRadius: 12,
            padding: 12,
            backgroundColor: p.sheet,
          }}
        >
          <Strong>{k.name}</Strong>
          <SlotPath slots={k.slots} gates={k.gates} />
          <Small>{`${k.forms.join(', ')}. ${count(k.pages, 'page')}`}</Small>
        </Pressable>
      ))}
      {shelf.hasNextPage ? (
        <Button kind="quiet" onPress={() => void shelf.fetchNextPage()}>
          {TEXT.moreKits}
        </Button>
      ) : null}
    </Page>
  );
}
