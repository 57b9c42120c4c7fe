/** One person: how they are reached, all their deals, packets and messages; and who may be the same person. */
import { router, useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { Linking, Pressable, View } from 'react-native';
import type { PersonBody, PersonView } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { KIND_WORDS, STATUS_WORDS } from '@gatepath/core/deal';
import { sideLabel } from '@gatepath/core/text';
import { usePerson, usePersonActions } from '../../api/deal-hooks';
import { usePalette } from '../../ui/hooks';
import { Input } from '../../ui/input';
import { NotReady, isReady } from '../../ui/not-ready';
import { Button, Card, IconButton, Note, Page, Trouble } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { STATUS_WORDS as PACKET_WORDS } from '../packet-status/words';
import { when } from '../../ui/dates';

export function PersonPlace() {
  const { personId } = useLocalSearchParams<{ personId: string }>();
  const person = usePerson(personId);
  const [editing, setEditing] = useState(false);
  if (!isReady(person)) return <NotReady query={person} what="the person" />;
  const p = person.data;
  return (
    <Page>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
        <IconButton name="arrow-left" label="Back to the people" onPress={() => router.navigate('/people')} />
        <View style={{ flex: 1 }}>
          <Title>{p.name}</Title>
        </View>
        <IconButton name="pencil" label={`Correct ${p.name}`} onPress={() => setEditing(true)} testID="edit-person" />
      </View>
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
      {p.company ? <Body>{`Signs for ${p.company}`}</Body> : null}
      <Body>{p.email || 'No email address yet'}</Body>
      <Button
        kind="quiet"
        icon="download"
        onPress={() => void Linking.openURL(urlOf('personCard', { personId: p.id }))}
        style={{ alignSelf: 'flex-start' }}
      >
        As a contact card
      </Button>
      {p.phone ? (
        <Button
          icon="phone"
          onPress={() => void Linking.openURL(`tel:${(p.phone ?? '').replace(/[^\d+]/g, '')}`)}
          style={{ alignSelf: 'flex-start' }}
        >
          {`Call ${p.phone}`}
        </Button>
      ) : null}
    </Card>
  );
}

function PersonForm({ person, onDone }: { person: PersonView; onDone: () => void }) {
  const { set } = usePersonActions(person.id);
  const [body, setBody] = useState<PersonBody>({
    name: person.name,
    email: person.email,
    phone: person.phone,
    company: person.company,
  });
  const put = (change: Partial<PersonBody>) => setBody((b) => ({ ...b, ...change }));
  return (
    <Card style={{ gap: 10 }}>
      <Input
        label="Name"
        value={body.name}
        maxLength={120}
        onChangeText={(name) => put({ name })}
        testID="person-name"
      />
      <Input
        label="Email"
        value={body.email}
        inputMode="email"
        autoCapitalize="none"
        onChangeText={(email) => put({ email })}
      />
      <Input
        label="Phone"
        value={body.phone ?? ''}
        inputMode="tel"
        maxLength={40}
        onChangeText={(phone) => put({ phone: phone || null })}
      />
      <Input
        label="Signs for a company or trust"
        value={body.company}
        maxLength={160}
        onChangeText={(company) => put({ company })}
      />
      <Small>This corrects every open deal. Packets already sent keep the name and address they were sent to.</Small>
      {set.isError ? <Trouble error={set.error} /> : null}
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button
          kind="main"
          disabled={!body.name.trim()}
          busy={set.isPending}
          onPress={() => set.mutate(body, { onSuccess: onDone })}
          testID="save-person"
        >
          Save
        </Button>
        <Button onPress={onDone}>Cancel</Button>
      </View>
    </Card>
  );
}

/** Somebody who may be the same person; made one only when a member says so. */
function Alike({ person, other }: { person: PersonView; other: PersonView['alike'][number] }) {
  const { merge } = usePersonActions(person.id);
  const [asking, setAsking] = useState(false);
  return (
    <Note
      tone="plain"
      title={`${other.name}${other.email ? `, ${other.email}` : ''} is also in the address book`}
      testID="alike"
      action={
        <View style={{ gap: 8 }}>
          {asking ? (
            <Small>{`${other.name} and all their deals become part of ${person.name}. This cannot be undone.`}</Small>
          ) : null}
          {merge.isError ? <Trouble error={merge.error} /> : null}
          <View style={{ flexDirection: 'row', gap: 10, flexWrap: 'wrap' }}>
            {asking ? (
              <>
                <Button kind="main" busy={merge.isPending} onPress={() => merge.mutate(other.id)} testID="merge-now">
                  Merge them
                </Button>
                <Button onPress={() => setAsking(false)}>Keep both</Button>
              </>
            ) : (
              <>
                <Button kind="quiet" onPress={() => router.push(`/people/${other.id}`)}>
                  Look
                </Button>
                <Button kind="quiet" onPress={() => setAsking(true)} testID="merge">
                  The same person
                </Button>
              </>
            )}
          </View>
        </View>
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
    <Heading>Deals</Heading>
    {p.deals.length ? null : <Small>In no deal.</Small>}
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
    <Heading>Packets</Heading>
    {p.packets.length ? null : <Small>In no packet.</Small>}
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
    <Heading>Messages</Heading>
    {p.messages.length ? null : <Small>No messages were sent to them.</Small>}
    {p.messages.map((m) => (
      <Line
        key={m.id}
        title={m.subject || 'Text message'}
        under={when(m.createdAt)}
        onPress={() => router.push(`/mailroom/${m.id}`)}
      />
    ))}
  </Card>
);
