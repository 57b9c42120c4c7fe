/** The client's ceremony: one calm column, one thing at a time. */
import { useState } from 'react';
import { Linking, View } from 'react-native';
import { pathOf, type SigningView } from '@gatepath/contract';
import { firstName, listWords, sideLabel } from '@gatepath/core/text';
import { usePalette } from '../../ui/hooks';
import { Button, Card, Loading, Page, Trouble } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { Token } from '../../ui/token';
import { AgreementStep } from './agreement-step';
import { DeclineStep } from './decline-step';
import { HandStep } from './hand-step';
import { PlacesStep } from './places-step';
import { ReadAll } from './read-all';
import { useSigning, type Signing } from './use-signing';

export function Ceremony({ token }: { token: string }) {
  const signing = useSigning(token);
  const [side, setSide] = useState<'read' | 'decline' | 'hand' | null>(null);
  const { query } = signing;
  if (query.isPending) return <Loading what="your documents" />;
  if (query.isError)
    return (
      <Page max={560}>
        <Title>{query.error.message.startsWith('It is not your turn') ? 'Not yet' : 'We cannot open this'}</Title>
        <Trouble error={query.error} retry={() => void query.refetch()} />
      </Page>
    );
  const view = query.data;
  if (side === 'read') return <ReadAll token={token} view={view} onBack={() => setSide(null)} />;
  if (side === 'decline' && view.myTurn)
    return <DeclineStep signing={signing} view={view} onBack={() => setSide(null)} />;
  if (view.mine === 'done' || view.status !== 'at_gate' || !view.myTurn)
    return <Ended token={token} view={view} onRead={() => setSide('read')} />;
  if (!view.agreed)
    return (
      <AgreementStep
        signing={signing}
        view={view}
        onRead={() => setSide('read')}
        onDecline={() => setSide('decline')}
      />
    );
  if (view.me.act === 'approve')
    return (
      <ApproveStep signing={signing} view={view} onRead={() => setSide('read')} onDecline={() => setSide('decline')} />
    );
  if (!view.hand || side === 'hand') return <HandStep signing={signing} view={view} onDone={() => setSide(null)} />;
  return (
    <PlacesStep
      token={token}
      signing={signing}
      view={view}
      onRead={() => setSide('read')}
      onDecline={() => setSide('decline')}
      onHand={() => setSide('hand')}
    />
  );
}

/** Who is signing, said clearly: two people may share one mailbox. */
export function WhoIs({ view, over }: { view: SigningView; over?: boolean }) {
  const first = firstName(view.me.name);
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
      <Token name={view.me.name} ink={view.me.ink} size={42} />
      <View style={{ flex: 1 }}>
        <Strong style={{ fontSize: 19, lineHeight: 25 }}>
          {over ? `For ${first}` : `You are signing as ${first}`}
        </Strong>
        <Small>{`${view.me.name}, ${sideLabel(view.me.side, view.me.ordinal)}`}</Small>
      </View>
    </View>
  );
}

function ApproveStep({
  signing,
  view,
  onRead,
  onDecline,
}: {
  signing: Signing;
  view: SigningView;
  onRead: () => void;
  onDecline: () => void;
}) {
  return (
    <Page max={560}>
      <WhoIs view={view} />
      <Title>{view.packetName}</Title>
      <Body>
        Please read the documents. If you agree with them, approve. Nothing is written onto the pages for you.
      </Body>
      <Button large onPress={onRead}>
        Read everything
      </Button>
      {signing.finish.isError ? <Trouble error={signing.finish.error} /> : null}
      <Button
        large
        kind="main"
        busy={signing.finish.isPending}
        onPress={() => signing.finish.mutate()}
        testID="approve"
      >
        Approve
      </Button>
      <Button kind="quiet" onPress={onDecline}>
        Decline
      </Button>
    </Page>
  );
}

/** After the own part is done, and at every end. */
function Ended({ token, view, onRead }: { token: string; view: SigningView; onRead: () => void }) {
  const p = usePalette();
  const waiting = view.others.filter((o) => !o.done).map((o) => o.name);
  const sealed = view.documents.length > 0 && view.documents.every((d) => d.sealed);
  const [title, text] =
    view.status === 'executed'
      ? [
          'Everyone has signed',
          sealed
            ? 'Your sealed copies are ready. They show every signature and who signed what when.'
            : 'Your sealed copies are being made. They show here in a moment.',
        ]
      : view.status === 'declined'
        ? [
            view.mine === 'declined' ? 'You have declined' : 'This has ended',
            view.mine === 'declined'
              ? `We have told ${view.firmName} why. You do not have to do anything else.`
              : 'Somebody declined to sign. You do not have to do anything.',
          ]
        : view.mine === 'done'
          ? [
              `Thank you, ${firstName(view.me.name)}`,
              waiting.length
                ? `You are done. ${listWords(waiting)} ${waiting.length === 1 ? 'signs' : 'sign'} next; then we send you your sealed copy.`
                : 'You are done.',
            ]
          : view.me.act === 'copy'
            ? [
                'A copy for you',
                'You do not have to sign. You can read everything here; the sealed copy follows when everyone has signed.',
              ]
            : ['Nothing to do now', `${view.firmName} will be in touch if there is something to sign.`];
  return (
    <Page max={560}>
      <WhoIs view={view} over />
      <View
        style={{ width: 56, height: 6, borderRadius: 3, backgroundColor: view.status === 'declined' ? p.wine : p.moss }}
      />
      <Title testID="ended">{title}</Title>
      <Body style={{ fontSize: 18, lineHeight: 26 }}>{text}</Body>
      <Card>
        <Heading>{sealed ? 'Sealed copies' : 'Documents'}</Heading>
        {view.documents.map((d) => (
          <Button
            key={d.id}
            icon="download"
            onPress={() => void Linking.openURL(pathOf('signingFile', { token, documentId: d.id }))}
            testID="download"
          >
            {d.name}
          </Button>
        ))}
        <Button kind="quiet" onPress={onRead} style={{ alignSelf: 'flex-start' }}>
          Read everything here
        </Button>
      </Card>
      <Small>You can close this page. This link keeps working for your documents.</Small>
    </Page>
  );
}
