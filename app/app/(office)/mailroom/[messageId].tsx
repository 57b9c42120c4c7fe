import { useLocalSearchParams } from 'expo-router';
import { Linking, View } from 'react-native';
import { pathOf } from '@gatepath/contract';
import { useMessage, useSession } from '../../../api/hooks';
import { when } from '../../../features/packet/words';
import { Button, Card, Loading, Page, Trouble } from '../../../ui/pieces';
import { Body, Small, Title } from '../../../ui/text';

export default function Message() {
  const { messageId } = useLocalSearchParams<{ messageId: string }>();
  const message = useMessage(messageId);
  const session = useSession();
  if (message.isPending) return <Loading what="the message" />;
  if (message.isError)
    return (
      <Page>
        <Trouble error={message.error} retry={() => void message.refetch()} />
      </Page>
    );
  const m = message.data;
  return (
    <Page>
      <View>
        <Title>{m.subject}</Title>
        <Small>{`To ${m.toName} (${m.toEmail}) · ${when(m.createdAt, session.data?.firm?.timeZone)}`}</Small>
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
      <View style={{ flexDirection: 'row', gap: 10, flexWrap: 'wrap' }}>
        {m.link ? (
          <Button kind="main" onPress={() => void Linking.openURL(m.link!)}>
            Open the link
          </Button>
        ) : null}
        <Button icon="download" onPress={() => void Linking.openURL(pathOf('messageFile', { messageId: m.id }))}>
          Save as .eml
        </Button>
      </View>
    </Page>
  );
}
