/** Agreeing to sign electronically comes before anything else. */
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import type { SigningView } from '@gatepath/contract';
import { count, listWords } from '@gatepath/core/text';
import { Icon } from '../../ui/icon';
import { usePalette } from '../../ui/hooks';
import { Button, Card, Note, Page, Trouble } from '../../ui/pieces';
import { Body, Heading, Small, Title } from '../../ui/text';
import { WhoIs } from './ceremony';
import { placesOf } from './places';
import type { OwnMark, Signing } from './use-signing';

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
  const left = placesOf(view).filter((x) => x.required && !x.done);
  const of = (kind: OwnMark['kind']) => left.filter((x) => x.marks[0]!.kind === kind).length;
  const initials = of('initials');
  const signatures = of('signature');
  const answers = left.length - initials - signatures;
  const work = listWords(
    [
      initials ? `initial ${count(initials, 'place')}` : '',
      signatures ? `sign ${count(signatures, 'time')}` : '',
      answers ? `fill in ${count(answers, 'place')}` : '',
    ].filter(Boolean),
  );
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
