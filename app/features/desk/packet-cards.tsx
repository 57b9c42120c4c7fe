/** What else belongs to a draft: its documents in order, its words, and throwing it away. */
import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { editsToDropDocument } from '@gatepath/core/marks';
import { count } from '@gatepath/core/text';
import { usePacketActions } from '../../api/hooks';
import { Input } from '../../ui/input';
import { Button, Card, IconButton, Trouble } from '../../ui/pieces';
import { Body, Heading, Small } from '../../ui/text';
import type { Desk } from './use-desk';

export function DocumentsCard({ desk }: { desk: Desk }) {
  const { draft, edit, packet } = desk;
  const addable = packet.documents.filter((d) => d.status === 'ready' && !draft.documents.some((x) => x.id === d.id));
  const move = (id: string, index: number) => edit([{ op: 'put', list: 'documents', item: { id }, index }]);
  return (
    <Card style={{ padding: 12 }}>
      <Heading>Documents</Heading>
      {draft.documents.map((d, i) => {
        const doc = packet.documents.find((x) => x.id === d.id);
        const name = doc?.name ?? 'Document';
        return (
          <View key={d.id} style={{ flexDirection: 'row', alignItems: 'center' }}>
            <View style={{ flex: 1 }}>
              <Body>{name}</Body>
              <Small>{doc ? count(doc.pages.length, 'page') : ''}</Small>
            </View>
            <IconButton
              name="arrow-up"
              label={`${name} earlier`}
              disabled={i === 0}
              onPress={() => move(d.id, i - 1)}
            />
            <IconButton
              name="arrow-down"
              label={`${name} later`}
              disabled={i === draft.documents.length - 1}
              onPress={() => move(d.id, i + 1)}
            />
            <IconButton
              name="close"
              label={`Take ${name} out of the packet`}
              onPress={() => edit(editsToDropDocument(draft, d.id))}
            />
          </View>
        );
      })}
      {addable.map((d) => (
        <Button key={d.id} icon="plus" onPress={() => edit([{ op: 'put', list: 'documents', item: { id: d.id } }])}>
          {`Add ${d.name}`}
        </Button>
      ))}
    </Card>
  );
}

/** Name, subject and message; they are saved when the field is left, not with every letter. */
export function WordsCard({ desk }: { desk: Desk }) {
  const { draft, edit } = desk;
  return (
    <Card style={{ padding: 12 }}>
      <Heading>Message</Heading>
      <WordField
        label="Name of the packet"
        value={draft.name}
        onSave={(value) => value.trim() && edit([{ op: 'set', field: 'name', value }])}
      />
      <WordField
        label="Subject"
        value={draft.subject}
        onSave={(value) => edit([{ op: 'set', field: 'subject', value }])}
      />
      <WordField
        label="Message to everyone (optional)"
        multiline
        value={draft.message}
        onSave={(value) => edit([{ op: 'set', field: 'message', value }])}
      />
    </Card>
  );
}

/** A draft can go; what was sent cannot. */
export function ThrowAway({ desk }: { desk: Desk }) {
  const { drop } = usePacketActions(desk.packet.id);
  const [asking, setAsking] = useState(false);
  if (!asking)
    return (
      <Button kind="quiet" onPress={() => setAsking(true)} style={{ alignSelf: 'flex-start' }}>
        Throw this draft away
      </Button>
    );
  return (
    <Card style={{ padding: 12 }}>
      <Body>{`“${desk.draft.name}” and its marks go for good. The documents stay in the deal.`}</Body>
      {drop.isError ? <Trouble error={drop.error} /> : null}
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button
          kind="stop"
          busy={drop.isPending}
          onPress={() => drop.mutate(undefined, { onSuccess: () => router.replace(`/deals/${desk.packet.dealId}`) })}
        >
          Throw away
        </Button>
        <Button onPress={() => setAsking(false)}>Keep</Button>
      </View>
    </Card>
  );
}

function WordField({
  label,
  value,
  onSave,
  multiline,
}: {
  label: string;
  value: string;
  onSave: (value: string) => void;
  multiline?: boolean;
}) {
  const [text, setText] = useState<string | null>(null);
  return (
    <Input
      label={label}
      value={text ?? value}
      multiline={multiline}
      onChangeText={setText}
      onBlur={() => {
        if (text !== null && text !== value) onSave(text);
        setText(null);
      }}
    />
  );
}
