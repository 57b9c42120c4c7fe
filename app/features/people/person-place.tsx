/** One person: how they are reached, all their deals, packets and messages; and who may be the same person. */
import { yupResolver } from '@hookform/resolvers/yup';
import { router, useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Linking, Pressable } from 'react-native';
import { personBody, type PersonView } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { KIND_WORDS, STATUS_WORDS } from '@gatepath/core/deal';
import { sideLabel } from '@gatepath/core/text';
import { usePerson, usePersonActions } from '../../api/deal-hooks';
import { usePalette } from '../../ui/hooks';
import { Field, showFieldErrors } from '../../ui/field';
import { NotReady, isReady } from '../../ui/not-ready';
import { ActError, Button, Card, IconButton, Note, Page } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { STATUS_WORDS as PACKET_WORDS } from '../packet-status/words';
import { when } from '../../ui/dates';
import { TEXT } from './words';
import { Actions, Row, Stack } from '../../ui/layout';

export function PersonPlace() {
  const { personId } = useLocalSearchParams<{ personId: string }>();
  const person = usePerson(personId);
  const [editing, setEditing] = useState(false);
  if (!isReady(person)) return <NotReady query={person} what={TEXT.thePerson} />;
  const p = person.data;
  return (
    <Page>
      <Row gap={4}>
        <IconButton name="arrow-left" label={TEXT.backToThePeople} onPress={() => router.navigate('/people')} />
        <Stack grow>
          <Title>{p.name}</Title>
        </Stack>
        <IconButton name="pencil" label={TEXT.correct(p.name)} onPress={() => setEditing(true)} testID="edit-person" />
      </Row>
      {editing ? <PersonForm person={p} onDone={() => setEditing(false)} /> : <Reached person={p} />}
      {p.alike.map((a) => (
        <Alike key={a.id} person={p} other={a} />
      ))}
      <Deals person={p} />
      <Packets person={p} />
      <Messages person={p} />
    </Page>
  );
}

function Reached({ person: p }: { person: PersonView }) {
  return (
    <Card>
      {p.company ? <Body>{TEXT.signsFor(p.company)}</Body> : null}
      <Body>{p.email || TEXT.noEmailAddressYet}</Body>
      <Button
        kind="quiet"
        icon="download"
        onPress={() => void Linking.openURL(urlOf('personCard', { personId: p.id }))}
        fit
      >
        {TEXT.asAContactCard}
      </Button>
      {p.phone ? (
        <Button icon="phone" onPress={() => void Linking.openURL(`tel:${(p.phone ?? '').replace(/[^\d+]/g, '')}`)} fit>
          {TEXT.call(p.phone)}
        </Button>
      ) : null}
    </Card>
  );
}

function PersonForm({ person, onDone }: { person: PersonView; onDone: () => void }) {
  const { set } = usePersonActions(person.id);
  const { control, handleSubmit, setError } = useForm({
    resolver: yupResolver(personBody),
    defaultValues: { name: person.name, email: person.email, phone: person.phone ?? '', company: person.company },
  });
  const submit = handleSubmit(async (body) => {
    try {
      await set.mutateAsync({ ...body, phone: body.phone || null });
      onDone();
    } catch (e) {
      showFieldErrors(e, setError);
    }
  });
  return (
    <Card>
      <Field control={control} name="name" label={TEXT.name} autoComplete="off" />
      <Field control={control} name="email" label={TEXT.email} keyboard="email-address" autoComplete="off" />
      <Field control={control} name="phone" label={TEXT.phone} keyboard="phone-pad" autoComplete="off" />
      <Field
        control={control}
        name="company"
        label={TEXT.signsForACompany}
        autoComplete="off"
        onSubmit={() => void submit()}
      />
      <Small>{TEXT.thisCorrectsEveryOpenDeal}</Small>
      <ActError of={set} />
      <Row gap={8} align="stretch">
        <Button kind="main" busy={set.isPending} onPress={() => void submit()} testID="save-person">
          {TEXT.save}
        </Button>
        <Button onPress={onDone}>{TEXT.cancel}</Button>
      </Row>
    </Card>
  );
}

/** A person who may be the same one; merged only when a member says so. */
function Alike({ person, other }: { person: PersonView; other: PersonView['alike'][number] }) {
  const { merge } = usePersonActions(person.id);
  const [asking, setAsking] = useState(false);
  return (
    <Note
      tone="plain"
      title={TEXT.isAlsoInTheAddress(other.name, other.email ? `, ${other.email}` : '')}
      testID="alike"
      action={
        <Stack gap={8}>
          {asking ? <Small>{TEXT.andAllTheirDealsBecome(other.name, person.name)}</Small> : null}
          <ActError of={merge} />
          <Actions>
            {asking ? (
              <>
                <Button kind="main" busy={merge.isPending} onPress={() => merge.mutate(other.id)} testID="merge-now">
                  {TEXT.mergeThem}
                </Button>
                <Button onPress={() => setAsking(false)}>{TEXT.keepBoth}</Button>
              </>
            ) : (
              <>
                <Button kind="quiet" onPress={() => router.push(`/people/${other.id}`)}>
                  {TEXT.look}
                </Button>
                <Button kind="quiet" onPress={() => setAsking(true)} testID="merge">
                  {TEXT.theSamePerson}
                </Button>
              </>
            )}
          </Actions>
        </Stack>
      }
    />
  );
}

function Line({ title, under, onPress }: { title: string; under: string; onPress: () => void }) {
  const p = usePalette();
  return (
    <Pressable
      role="link"
      onPress={onPress}
      style={{ minHeight: 48, justifyContent: 'center', borderTopWidth: 1, borderColor: p.rule, paddingVertical: 6 }}
    >
      <Strong numberOfLines={1}>{title}</Strong>
      <Small numberOfLines={2}>{under}</Small>
    </Pressable>
  );
}

const Deals = ({ person: p }: { person: PersonView }) => (
  <Card testID="deals-of">
    <Heading>{TEXT.deals}</Heading>
    {p.deals.length ? null : <Small>{TEXT.inNoDeal}</Small>}
    {p.deals.map((d) => (
      <Line
        key={`${d.id} ${d.side} ${d.ordinal}`}
        title={d.address}
        under={`${KIND_WORDS[d.kind]}, ${STATUS_WORDS[d.status]} · ${sideLabel(d.side, d.ordinal)}`}
        onPress={() => router.push(`/deals/${d.id}`)}
      />
    ))}
  </Card>
);

const Packets = ({ person: p }: { person: PersonView }) => (
  <Card testID="packets-of">
    <Heading>{TEXT.packets}</Heading>
    {p.packets.length ? null : <Small>{TEXT.inNoPacket}</Small>}
    {p.packets.map((k) => (
      <Line
        key={k.id}
        title={`${k.name}, ${k.address}`}
        under={k.status === 'at_gate' ? k.holdUp : `${PACKET_WORDS[k.status]}, ${when(k.at)}`}
        onPress={() => router.push(`/packets/${k.id}`)}
      />
    ))}
  </Card>
);

const Messages = ({ person: p }: { person: PersonView }) => (
  <Card testID="messages-of">
    <Heading>{TEXT.messages}</Heading>
    {p.messages.length ? null : <Small>{TEXT.noMessagesWereSent}</Small>}
    {p.messages.map((m) => (
      <Line
        key={m.id}
        title={m.subject || TEXT.textMessage}
        under={when(m.createdAt)}
        onPress={() => router.push(`/mailroom/${m.id}`)}
      />
    ))}
  </Card>
);
