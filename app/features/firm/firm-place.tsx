import { router } from 'expo-router';
import { useFirm, useSession, useSignOut } from '../../api/hooks';
import { CalendarFeed } from '../deals/calendar-feed';
import { AccountCard } from './account-card';
import { ColleaguesCard } from './colleagues-card';
import { MembersCard } from './members-card';
import { NoticeRulesCard } from './notice-rules-card';
import { TextsCard } from './texts-card';
import { ClockCard, FailuresCard, HolidaysCard, NoticesCard, RememberedCard } from './settings';
import { NotReady, isReady } from '../../ui/not-ready';
import { Button, Card, Note, Page } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { TEXT } from './words';

export function FirmPlace() {
  const firm = useFirm();
  const session = useSession();
  const signOut = useSignOut();
  if (!isReady(firm)) return <NotReady query={firm} what={TEXT.theFirm} />;
  const f = firm.data;
  return (
    <Page>
      <Title>{f.name}</Title>
      <FailuresCard firm={f} />
      <MembersCard firm={f} meId={session.data?.member?.id ?? ''} />
      <AccountCard />
      <Card>
        <Heading>{TEXT.seal}</Heading>
        <Strong>{f.seal.subject}</Strong>
        <Small>{f.seal.selfMade ? TEXT.aCertificateMadeByThis : TEXT.certifiedBy(f.seal.issuer)}</Small>
        <Small>{TEXT.validUntil(new Date(f.seal.validUntil).toLocaleDateString('en-US', { dateStyle: 'long' }))}</Small>
        <Small>{TEXT.sha(f.seal.fingerprint)}</Small>
      </Card>
      {f.mail === 'mailroom' && !session.data?.demo ? (
        <Note tone="warn" title={TEXT.noMailServerIsSet}>
          {TEXT.messagesStayInTheMailroom}
        </Note>
      ) : null}
      <Card>
        <Heading>{TEXT.rules}</Heading>
        <Body>{TEXT.whatEachDealNeedsWhy}</Body>
        <Button onPress={() => router.push('/rules')} fit testID="to-rules">
          {TEXT.seeTheRules}
        </Button>
      </Card>
      <TextsCard />
      <NoticeRulesCard />
      <NoticesCard />
      <ColleaguesCard />
      <Card>
        <Heading>{TEXT.yourCalendar}</Heading>
        <CalendarFeed dealId={null} />
      </Card>
      <RememberedCard firm={f} />
      <HolidaysCard firm={f} />
      {session.data?.clockForward ? <ClockCard /> : null}
      <Button onPress={() => signOut.mutate(undefined, { onSuccess: () => router.replace('/sign-in') })} fit>
        {TEXT.signOut}
      </Button>
    </Page>
  );
}
