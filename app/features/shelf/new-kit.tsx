/** A new kit: its forms and its name. */
import { router } from 'expo-router';
import { useState } from 'react';
import { count } from '@gatepath/core/text';
import { useNewOnShelf, useShelf } from '../../api/shelf-hooks';
import { Input } from '../../ui/input';
import { itemsOf } from '../../ui/list-page';
import { NotReady, isReady } from '../../ui/not-ready';
import { ActError, Button, Card, IconButton, Page } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body, Small, Title } from '../../ui/text';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

export function NewKit() {
  const forms = useShelf('form', '');
  const { kit } = useNewOnShelf();
  const [name, setName] = useState('');
  const [chosen, setChosen] = useState<string[]>([]);
  if (!isReady(forms)) return <NotReady query={forms} what={TEXT.theForms} />;
  const usable = itemsOf(forms).filter((f) => f.edition > 0);
  const turn = (id: string) => setChosen((was) => (was.includes(id) ? was.filter((x) => x !== id) : [...was, id]));
  return (
    <Page max={560}>
      <Row gap={4}>
        <IconButton name="arrow-left" label={TEXT.backToTheShelf} onPress={() => router.navigate('/shelf')} />
        <Title>{TEXT.newKit}</Title>
      </Row>
      <Card>
        <Input label={TEXT.nameOfTheKit} value={name} onChangeText={setName} testID="kit-name" />
        <Small>{TEXT.whichFormsGoTogetherThey}</Small>
        {usable.map((f) => (
          <Switch
            key={f.id}
            label={chosen.includes(f.id) ? `${chosen.indexOf(f.id) + 1}. ${f.name}` : f.name}
            hint={count(f.pages, 'page')}
            on={chosen.includes(f.id)}
            onChange={() => turn(f.id)}
            testID={`choose-${f.name}`}
          />
        ))}
        {forms.hasNextPage ? <Button onPress={() => void forms.fetchNextPage()}>{TEXT.showMoreForms}</Button> : null}
        {usable.length ? null : <Body>{TEXT.noForm}</Body>}
        <ActError of={kit} />
        <Button
          kind="main"
          disabled={!name.trim() || !chosen.length}
          busy={kit.isPending}
          onPress={() =>
            kit.mutate({ name, formIds: chosen }, { onSuccess: (made) => router.replace(`/shelf/${made.id}`) })
          }
          testID="make-kit"
        >
          {TEXT.makeTheKit}
        </Button>
      </Card>
    </Page>
  );
}
