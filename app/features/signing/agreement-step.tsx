/** Agreeing to sign electronically comes before anything else. */
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import type { SigningView } from '@gatepath/contract';
import { count } from '@gatepath/core/text';
import { Icon } from '../../ui/icon';
import { usePalette } from '../../ui/hooks';
import { Button, Card, Note, Page, Trouble } from '../../ui/pieces';
import { Body, Heading, Small, Title } from '../../ui/text';
import { WhoIs } from './ceremony';
import type { Signing } from './use-signing';

interface Props {
  signing: Signing;
  view: SigningView;
  onRead: () => void;
  onDecline: () => void;
}

export function AgreementStep({ signing, view, onRead, onDecline }: Props) {
  const p = usePalette();
  const [ticked, setTicked] = useState(false);
  const [asked, setAsked] = useState(false);
  const pages = view.documents.reduce((n, d) => n + d.pages.length, 0);
  const left = view.marks.filter((m) => m.required && !m.done && !m.automatic);
  const initials = left.filter((m) => m.kind === 'initials').length;
  const signatures = left.filter((m) => m.kind === 'signature').length;
  const work = [
    initials ? `initial ${count(initials, 'place')}` : '',
    signatures ? `sign ${count(signatures, 'time')}` : '',
  ]
    .filter(Boolean)
    .join(' and ');
  return (
    <Page max={560}>
      <WhoIs view={view} />
      <View style={{ gap: 4 }}>
        <Small>{`${view.firmName} for ${view.dealName}`}</Small>
        <Title>{view.packetName}</Title>
      </View>
      {view.message ? (
        <Card>
          <Body>{view.message}</Body>
        </Card>
      ) : null}
      <Body style={{ fontSize: 18, lineHeight: 26 }}>
        {`${count(view.documents.length, 'document')}, ${count(pages, 'page')}. ${work ? `You ${work}.` : ''} You can stop at any time and go on later with the same link.`}
      </Body>
      <Card>
        <Heading>Signing electronically</Heading>
        {view.agreementText.paragraphs.map((t, i) => (
          <Body key={i}>{t}</Body>
        ))}
        <Pressable
          role="checkbox"
          aria-checked={ticked}
          testID="agree-tick"
          onPress={() => setTicked(!ticked)}
          style={{ flexDirection: 'row', alignItems: 'center', gap: 12, minHeight: 56 }}
        >
          <View
            style={{
              width: 30,
              height: 30,
              borderRadius: 8,
              borderWidth: 2,
              borderColor: p.ink,
              backgroundColor: ticked ? p.ink : p.sheet,
              alignItems: 'center',
              justifyContent: 'center',
            }}
          >
            {ticked ? <Icon name="check" color={p.paper} /> : null}
          </View>
          <Body style={{ flex: 1, fontSize: 18 }}>I agree to sign electronically</Body>
        </Pressable>
      </Card>
      {asked && !ticked ? <Note tone="warn" title="Please tick “I agree to sign electronically” first." /> : null}
      {signing.agree.isError ? <Trouble error={signing.agree.error} /> : null}
      <Button
        large
        kind="main"
        busy={signing.agree.isPending}
        onPress={() => (ticked ? signing.agree.mutate(view.agreementText.version) : setAsked(true))}
        testID="agree"
      >
        Go on
      </Button>
      <View style={{ flexDirection: 'row', justifyContent: 'space-between' }}>
        <Button kind="quiet" onPress={onRead}>
          Read everything first
        </Button>
        <Button kind="quiet" onPress={onDecline}>
          Decline
        </Button>
      </View>
    </Page>
  );
}
