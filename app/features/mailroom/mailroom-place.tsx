import { router, useLocalSearchParams } from 'expo-router';
import { Linking, Pressable, View } from 'react-native';
import type { MessageSummary } from '@gatepath/contract';
import { useMailroom, useSession } from '../../api/hooks';
import { when } from '../../ui/dates';
import { usePalette } from '../../ui/hooks';
import { ListPage } from '../../ui/list-page';
import { Button, Card, Note } from '../../ui/pieces';
import { Body, Small, Strong, Title } from '../../ui/text';

export function MailroomPlace() {
  const { packetId } = useLocalSearchParams<{ packetId?: string }>();
  const session = useSession();
  const mail = useMailroom(packetId);
  const header = (
    <>
      <Title>Mailroom</Title>
      {session.data?.mail === 'mailroom' ? (
        session.data.demo ? (
          <Small>In the demo, nothing leaves this computer: every message stays here, and its links work.</Small>
        ) : (
          <Note tone="warn" title="No mail server is set">
            Messages stay here and reach no one. Set SMTP_URL and restart the server; until then, send the links on
            yourself.
          </Note>
        )
      ) : null}
    </>
  );
  return (
    <ListPage
      header={header}
      what="the messages"
      more="Show older messages"
      list={mail}
      render={(m) => <MessageCard message={m} timeZone={session.data?.firm?.timeZone} />}
      empty={
        <Card>
          <Body>No messages yet. When a packet is sent, everything that goes out can be read here.</Body>
        </Card>
      }
    />
  );
}

function MessageCard({ message: m, timeZone }: { message: MessageSummary; timeZone?: string }) {
  const p = usePalette();
  return (
    <Card testID="message">
      <Pressable role="link" onPress={() => router.push(`/mailroom/${m.id}`)} style={{ gap: 2, minHeight: 44 }}>
        <Strong>{m.subject}</Strong>
        <Small>
          {m.channel === 'text' ? `Text message to ${m.toName} (${m.toPhone})` : `To ${m.toName} (${m.toEmail})`}
        </Small>
        <Small>{`${when(m.createdAt, timeZone)} · ${{ queued: 'on its way', kept: 'in the mailroom', sent: 'sent', failed: 'not sent', returned: 'came back' }[m.status]}`}</Small>
        {m.problem ? <Small style={{ color: p.wine }}>{m.problem}</Small> : null}
      </Pressable>
      {m.link && /\/sign\//.test(m.link) ? (
        <View style={{ flexDirection: 'row' }}>
          <Button onPress={() => void Linking.openURL(m.link!)} testID={`open-link-${m.toName.split(' ')[0]}`}>
            {`Open ${m.toName.split(' ')[0]}’s signing link`}
          </Button>
        </View>
      ) : null}
    </Card>
  );
}
