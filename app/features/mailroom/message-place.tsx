import { useLocalSearchParams } from 'expo-router';
import { Linking, View } from 'react-native';
import { urlOf } from '@gatepath/contract/paths';
import { useMessage, useReturnMessage, useSession } from '../../api/hooks';
import { when } from '../../ui/dates';
import { NotReady, isReady } from '../../ui/not-ready';
import { ActError, Button, Card, Note, Page } from '../../ui/pieces';
import { Body, Small, Title } from '../../ui/text';
import { TEXT } from './words';
import { Actions } from '../../ui/layout';

export function MessagePlace() {
  const { messageId } = useLocalSearchParams<{ messageId: string }>();
  const message = useMessage(messageId);
  const session = useSession();
  const giveBack = useReturnMessage(messageId);
  if (!isReady(message)) return <NotReady query={message} what={TEXT.theMessage} />;
  const m = message.data;
  return (
    <Page>
      <View>
        <Title>{m.subject}</Title>
        <Small>{`${m.channel === 'text' ? TEXT.textMessage(m.toName, m.toPhone ?? '') : TEXT.to(m.toName, m.toEmail)} · ${when(m.createdAt, session.data?.firm?.timeZone)}`}</Small>
      </View>
      <Card>
        {m.bodyText
          .trim()
          .split(/\n\n+/)
          .map((paragraph, i) => (
            <Body key={i} style={{ marginBottom: 8 }}>
              {paragraph}
            </Body>
          ))}
      </Card>
      {m.problem ? <Note tone="warn" title={m.problem} /> : null}
      <ActError of={giveBack} />
      <Actions>
        {m.link ? (
          <Button kind="main" onPress={() => void Linking.openURL(m.link!)}>
            {TEXT.openTheLink}
          </Button>
        ) : null}
        {m.status === 'kept' ? (
          <Button busy={giveBack.isPending} onPress={() => giveBack.mutate()} testID="return-message">
            {TEXT.returnItAsUndeliverable}
          </Button>
        ) : null}
        {m.channel === 'email' ? (
          <Button icon="download" onPress={() => void Linking.openURL(urlOf('messageFile', { messageId: m.id }))}>
            {TEXT.saveAsEml}
          </Button>
        ) : null}
      </Actions>
    </Page>
  );
}
