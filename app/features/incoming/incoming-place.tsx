/** The screen of an uploaded contract: shows the values read from it; a member corrects them and opens the deal. */
import { Redirect, router, useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { dealOf, fieldsShown, type Accepted, type ChosenPerson } from '@gatepath/core/abstract';
import { DEAL_KINDS, FOR_WHOM_OF, KIND_WORDS, type DealKind } from '@gatepath/core/deal';
import { isOneOf, itemAt } from '@gatepath/core/sure';
import { count } from '@gatepath/core/text';
import { useIncoming, useIncomingActs } from '../../api/incoming-hooks';
import { isReady, NotReady } from '../../ui/not-ready';
import { Actions, Stack } from '../../ui/layout';
import { ActError, Button, Card, Choice, Note, Page } from '../../ui/pieces';
import { Body, Heading, Small, Title } from '../../ui/text';
import { PersonRow } from './person-row';
import { fieldsOf, type ReadContract } from './read-contract';
import { clearAccepted, useAccepted } from './use-accepted';
import { ValueRow } from './value-row';
import { TEXT } from './words';

/** The screen of one contract. */
export function IncomingPlace() {
  const { incomingId } = useLocalSearchParams<{ incomingId: string }>();
  const incoming = useIncoming(incomingId);
  if (!isReady(incoming)) return <NotReady query={incoming} what={TEXT.theContract} />;
  const view = incoming.data;
  if (view.dealId) return <Redirect href={`/deals/${view.dealId}`} />;
  const { abstract } = view;
  return (
    <Page max={620}>
      <Stack gap={4}>
        <Small>{TEXT.fromFile(view.fileName, count(view.pages.length, 'page'))}</Small>
        {abstract ? null : <Title>{TEXT.reading}</Title>}
      </Stack>
      {view.status === 'failed' ? (
        <Note tone="stop" title={view.problem ?? TEXT.couldNotBeRead} testID="contract-failed" />
      ) : null}
      {view.status === 'reading' ? (
        <View role="status" testID="contract-reading">
          <Body>{TEXT.readingPage(view.pagesRead, view.pages.length)}</Body>
        </View>
      ) : null}
      {abstract && view.status === 'ready' ? <ReadPlace view={{ ...view, abstract }} /> : <Discard id={view.id} />}
    </Page>
  );
}

/** What a contract says, and the deal it becomes. */
function ReadPlace({ view }: { view: ReadContract }) {
  const { abstract, holidays } = view;
  const [accepted, set] = useAccepted(view);
  const { open } = useIncomingActs(view.id);
  const deal = useMemo(() => dealOf(fieldsOf(view), accepted, holidays), [view, accepted, holidays]);
  const kind = KIND_WORDS[accepted.kind];
  const says = abstract.people.length > 0 || abstract.fields.length > 0;
  return (
    <>
      <Stack gap={4}>
        <Title testID="contract-title">{deal.address ? TEXT.aDealAt(kind, deal.address) : TEXT.aDeal(kind)}</Title>
        <Body>{says ? TEXT.intro : TEXT.nothingRead}</Body>
      </Stack>
      <AtAddress deals={abstract.atAddress} />
      <KindCard accepted={accepted} certain={abstract.kindCertain} onChange={set} />
      <PeopleCard view={view} people={accepted.people} onChange={(people) => set({ people })} />
      <Card gap={12} testID="contract-values">
        <Heading>{TEXT.whatItSays}</Heading>
        {fieldsShown(fieldsOf(view), accepted.kind).map((field) => (
          <ValueRow
            key={`${accepted.kind} ${field}`}
            view={view}
            field={field}
            accepted={accepted}
            onChange={(chosen) => set({ fields: { ...accepted.fields, [field]: chosen } })}
          />
        ))}
      </Card>
      <ActError of={open} />
      {deal.address ? null : <Small tone="warn">{TEXT.needsAddress}</Small>}
      <Button
        kind="main"
        large
        act
        disabled={!deal.address}
        busy={open.isPending}
        onPress={() =>
          open.mutate(deal, {
            onSuccess: (opened) => {
              clearAccepted(view.id);
              router.replace(`/deals/${opened.id}`);
            },
          })
        }
        testID="open-contract-deal"
      >
        {TEXT.openTheDeal}
      </Button>
      <Discard id={view.id} />
    </>
  );
}

/** Says that a deal at the address is open already. */
function AtAddress({ deals }: { deals: ReadContract['abstract']['atAddress'] }) {
  const first = deals[0];
  if (!first) return null;
  return (
    <Note
      tone="warn"
      title={TEXT.dealThereAlready(first.address)}
      testID="deal-at-address"
      action={
        <Button kind="quiet" fit onPress={() => router.push(`/deals/${first.id}`)}>
          {TEXT.goToDeal}
        </Button>
      }
    >
      {TEXT.addItThere}
    </Note>
  );
}

function KindCard({
  accepted,
  certain,
  onChange,
}: {
  accepted: Accepted;
  certain: boolean;
  onChange: (more: Partial<Accepted>) => void;
}) {
  const sides = FOR_WHOM_OF[accepted.kind];
  const choose = (kind: DealKind) =>
    onChange({
      kind,
      forWhom: isOneOf(FOR_WHOM_OF[kind], accepted.forWhom) ? accepted.forWhom : itemAt(FOR_WHOM_OF[kind], 0),
    });
  return (
    <Card gap={12}>
      {certain ? null : (
        <Stack gap={8}>
          <Small tone="warn">{TEXT.notSureOfKind}</Small>
          <Choice
            label={TEXT.kindOfDeal}
            value={accepted.kind}
            options={DEAL_KINDS.map((k) => ({ value: k, label: KIND_WORDS[k] }))}
            onChange={choose}
          />
        </Stack>
      )}
      <Stack gap={8}>
        <Small>{TEXT.forWhom}</Small>
        <Choice
          label={TEXT.forWhom}
          value={accepted.forWhom}
          wrap
          options={sides.map((value) => ({ value, label: value === 'both' ? TEXT.bothSides : TEXT.theSide(value) }))}
          onChange={(forWhom) => onChange({ forWhom })}
        />
      </Stack>
    </Card>
  );
}

function PeopleCard({
  view,
  people,
  onChange,
}: {
  view: ReadContract;
  people: readonly ChosenPerson[];
  onChange: (people: ChosenPerson[]) => void;
}) {
  return (
    <Card gap={12} testID="contract-people">
      <Heading>{TEXT.people}</Heading>
      {people.length ? null : <Small>{TEXT.nobodyRead}</Small>}
      {people.map((person, i) => (
        <PersonRow
          key={`${person.read ?? 'typed'} ${i}`}
          view={view}
          person={person}
          onChange={(more) => onChange(people.map((p, n) => (n === i ? { ...p, ...more } : p)))}
        />
      ))}
    </Card>
  );
}

function Discard({ id }: { id: string }) {
  const [asking, setAsking] = useState(false);
  const { discard } = useIncomingActs(id);
  if (!asking)
    return (
      <Button kind="quiet" fit onPress={() => setAsking(true)} testID="discard-contract">
        {TEXT.discard}
      </Button>
    );
  return (
    <Note
      tone="warn"
      title={TEXT.discardWarning}
      action={
        <Actions>
          <Button
            kind="stop"
            busy={discard.isPending}
            onPress={() =>
              discard.mutate(undefined, {
                onSuccess: () => {
                  clearAccepted(id);
                  router.replace('/deals/new');
                },
              })
            }
          >
            {TEXT.discard}
          </Button>
          <Button onPress={() => setAsking(false)}>{TEXT.keepIt}</Button>
          <ActError of={discard} />
        </Actions>
      }
    />
  );
}
