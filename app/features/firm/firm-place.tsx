import { router } from 'expo-router';
import { useFirm, useSession, useSignOut } from '../../api/hooks';
import { CalendarFeed } from '../deals/calendar-feed';
import { AccountCard } from './account-card';
import { ColleaguesCard } from './colleagues-card';
import { MembersCard } from './members-card';
import { NoticeRulesCard } from './notice-rules-card';
import { TextsCard } from './texts-card';
import { ClockCard, FailuresCard, HolidaysCard, NoticesCard } from './settings';
import { NotReady, isReady } from '../../ui/not-ready';
import { Button, Card, Note, Page } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';

export function FirmPlace() {
  const firm = useFirm();
  const session = useSession();
  const signOut = useSignOut();
  if (!isReady(firm)) return <NotReady query={firm} what="the firm" />;
  const f = firm.data;
  return (
    <Page>
      <Title>{f.name}</Title>
      <FailuresCard firm={f} />
      <MembersCard firm={f} meId={session.data?.member?.id ?? ''} />
      <AccountCard />
      <Card>
        <Heading>Seal</Heading>
        <Strong>{f.seal.subject}</Strong>
        <Small>
          {f.seal.selfMade
            ? 'A certificate made by this server. Set SEAL_P12 to seal with one from a certificate authority.'
            : `Certified by ${f.seal.issuer}.`}
        </Small>
        <Small>{`Valid until ${new Date(f.seal.validUntil).toLocaleDateString('en-US', { dateStyle: 'long' })}`}</Small>
        <Small>{`SHA-256 ${f.seal.fingerprint}`}</Small>
      </Card>
      {f.mail === 'mailroom' && !session.data?.demo ? (
        <Note tone="warn" title="No mail server is set">
          Messages stay in the mailroom. Set SMTP_URL to send them.
        </Note>
      ) : null}
      <Card>
        <Heading>Rules</Heading>
        <Body>What each deal needs, why, and by when.</Body>
        <Button onPress={() => router.push('/rules')} style={{ alignSelf: 'flex-start' }} testID="to-rules">
          See the rules
        </Button>
      </Card>
      <TextsCard />
      <NoticeRulesCard />
      <NoticesCard />
      <ColleaguesCard />
      <Card>
        <Heading>Your calendar</Heading>
        <CalendarFeed dealId={null} />
      </Card>
      <HolidaysCard firm={f} />
      {session.data?.clockForward ? <ClockCard /> : null}
      <Button
        onPress={() => signOut.mutate(undefined, { onSuccess: () => router.replace('/sign-in') })}
        style={{ alignSelf: 'flex-start' }}
      >
        Sign out
      </Button>
    </Page>
  );
}
