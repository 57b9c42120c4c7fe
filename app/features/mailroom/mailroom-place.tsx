import { router, useLocalSearchParams } from 'expo-router';
import { Linking, Pressable } from 'react-native';
import type { MessageSummary } from '@gatepath/contract';
import { useMailroom, useSession } from '../../api/hooks';
import { when } from '../../ui/dates';
import { ListPage } from '../../ui/list-page';
import { Button, Card, Note } from '../../ui/pieces';
import { Body, Small, Strong, Title } from '../../ui/text';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

export function MailroomPlace() {
  const { packetId } = useLocalSearchParams<{ packetId?: string }>();
  const session = useSession();
  const mail = useMailroom(packetId);
  const header = (
    <>
      <Title>{TEXT.mailroom}</Title>
      {session.data?.mail === 'mailroom' ? (
        session.data.demo ? (
          <Small>{TEXT.inTheDemoNothingLeaves}</Small>
        ) : (
          <Note tone="warn" title={TEXT.noMailServerIsSet}>
            {TEXT.messagesStayHereAndReach}
          </Note>
        )
      ) : null}
    </>
  );
  return (
    <ListPage
      header={header}
      what={TEXT.theMessages}
      more={TEXT.showOlderMessages}
      list={mail}
      render={(m) => <MessageCard message={m} timeZone={session.data?.firm?.timeZone} />}
      empty={
        <Card>
          <Body>{TEXT.noMessagesYetWhen}</Body>
        </Card>
      }
    />
  );
}

function MessageCard({ message: m, timeZone }: { message: MessageSummary; timeZone?: string }) {
  return (
    <Card testID="message">
      <Pressable role="link" onPress={() => router.push(`/mailroom/${m.id}`)} style={{ gap: 2, minHeight: 44 }}>
        <Strong>{m.subject}</Strong>
        <Small>
          {m.channel === 'text' ? TEXT.textMessage(m.toName, m.toPhone ?? '') : TEXT.to(m.toName, m.toEmail)}
        </Small>
        <Small>{`${when(m.createdAt, timeZone)} · ${{ queued: TEXT.onItsWay, kept: TEXT.inTheMailroom, sent: 'sent', failed: TEXT.notSent, returned: TEXT.cameBack }[m.status]}`}</Small>
        {m.problem ? <Small tone="stop">{m.problem}</Small> : null}
      </Pressable>
      {m.link && /\/sign\//.test(m.link) ? (
        <Row align="stretch">
          <Button onPress={() => void Linking.openURL(m.link!)} testID={`open-link-${m.toName.split(' ')[0]}`}>
            {TEXT.openSSigningLink(m.toName.split(' ')[0] ?? '')}
          </Button>
        </Row>
      ) : null}
    </Card>
  );
}
