/** Other parts of a draft: adding papers, its words, and deleting it. */
import { router } from 'expo-router';
import { useState } from 'react';
import { usePacketActions } from '../../api/hooks';
import { LateInput } from '../../ui/late-input';
import { ActError, Button, Card, Trouble } from '../../ui/pieces';
import { Body, Heading, Small } from '../../ui/text';
import { DocumentDrop } from '../uploads/document-drop';
import { useUploads } from '../uploads/uploads';
import { useDocumentTools } from './use-document-tools';
import { TextMenu } from './text-menu';
import { useDesk, useDeskActs } from './use-desk';
import type { DraftHandle } from './use-draft';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

/** Papers added at the desk: to the deal, and to this packet as soon as their pages are read. */
export function AddPapers() {
  const { edit } = useDeskActs();
  const dealId = useDesk((s) => s.packet.dealId);
  const tools = useDocumentTools();
  const [reading, setReading] = useState<string[]>([]);
  const uploads = useUploads(dealId, (doc) => {
    setReading((was) => [...was, doc.name]);
    void tools.settle(doc).then((ready) => {
      setReading((was) => was.filter((n) => n !== doc.name));
      if (ready) edit([{ op: 'put', list: 'documents', item: { id: ready.id } }]);
    });
  });
  return (
    <Stack gap={8}>
      {tools.error ? <Trouble error={tools.error} /> : null}
      <DocumentDrop {...uploads} />
      {reading.map((name) => (
        <Small key={name}>{TEXT.reading(name)}</Small>
      ))}
    </Stack>
  );
}

/** Name, subject and message; saved when the field is left, not at every key. */
export function WordsCard({
  on: { draft, edit },
  nameLabel,
  tags,
}: {
  on: Pick<DraftHandle, 'draft' | 'edit'>;
  nameLabel: string;
  /** Some of the tags that text may have. */
  tags: string[];
}) {
  return (
    <Card style={{ padding: 12 }}>
      <Heading>{TEXT.message}</Heading>
      <LateInput
        label={nameLabel}
        value={draft.name}
        onSave={(value) => value.trim() && edit([{ op: 'set', field: 'name', value }])}
      />
      <LateInput
        label={TEXT.subject}
        value={draft.subject}
        onSave={(value) => edit([{ op: 'set', field: 'subject', value }])}
      />
      <LateInput
        label={TEXT.messageToEveryoneOptional}
        multiline
        value={draft.message}
        onSave={(value) => edit([{ op: 'set', field: 'message', value }])}
      />
      <TextMenu value={draft.message} onChange={(value) => edit([{ op: 'set', field: 'message', value }])} />
      <Small>{TEXT.wordsInCurlyBracketsCome(tags.map((t) => `{${t}}`).join(', '))}</Small>
    </Card>
  );
}

/** Deleting a draft; a packet that was sent cannot be deleted. */
export function ThrowAway() {
  const { packet, name } = useDesk((s) => ({ packet: s.packet, name: s.draft.name }));
  const { drop } = usePacketActions(packet.id);
  const [asking, setAsking] = useState(false);
  if (!asking)
    return (
      <Button kind="quiet" onPress={() => setAsking(true)} fit>
        {TEXT.deleteThisDraft}
      </Button>
    );
  return (
    <Card style={{ padding: 12 }}>
      <Body>{TEXT.andItsMarksWillBe(name)}</Body>
      <ActError of={drop} />
      <Row gap={8} align="stretch">
        <Button
          kind="stop"
          busy={drop.isPending}
          onPress={() => drop.mutate(undefined, { onSuccess: () => router.replace(`/deals/${packet.dealId}`) })}
        >
          {TEXT.throwAway}
        </Button>
        <Button onPress={() => setAsking(false)}>{TEXT.keep}</Button>
      </Row>
    </Card>
  );
}
