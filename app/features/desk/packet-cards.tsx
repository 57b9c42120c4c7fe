/** What else belongs to a draft: its documents in order, its words, and throwing it away. */
import { router } from 'expo-router';
import { useRef, useState } from 'react';
import { View } from 'react-native';
import { Menu } from 'react-native-paper';
import { pathOf } from '@gatepath/contract/paths';
import { editsToDropDocument } from '@gatepath/core/packet';
import { DOCUMENT_TYPES, TYPE_WORDS } from '@gatepath/core/reading';
import { count } from '@gatepath/core/text';
import { usePacketActions } from '../../api/hooks';
import { LateInput } from '../../ui/late-input';
import { DropMenu } from '../../ui/menu';
import { Button, Card, IconButton, Note, Trouble } from '../../ui/pieces';
import { Body, Heading, Small } from '../../ui/text';
import { DocumentDrop } from '../deals/document-drop';
import { PAPER_FILES, useUploads } from '../deals/uploads';
import { useDocumentTools } from './use-document-tools';
import type { Desk } from './use-desk';

export function DocumentsCard({ desk }: { desk: Desk }) {
  const { draft, edit, packet } = desk;
  const tools = useDocumentTools(desk);
  const [replacing, setReplacing] = useState<string | null>(null);
  const [told, setTold] = useState<string | null>(null);
  const [renaming, setRenaming] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const addable = packet.documents.filter(
    (d) => d.status === 'ready' && !d.replacedBy && !draft.documents.some((x) => x.id === d.id),
  );
  const move = (id: string, index: number) => edit([{ op: 'put', list: 'documents', item: { id }, index }]);
  const nameOf = (id: string) => packet.documents.find((x) => x.id === id)?.name ?? 'Document';
  const replace = async (file: File | undefined) => {
    if (!file || !replacing) return;
    const done = await tools.replace(replacing, file);
    if (done)
      setTold(
        done.kept === done.of
          ? 'The file was replaced; every page was found again and kept its marks.'
          : `The file was replaced; ${done.kept} of ${count(done.of, 'page')} were found again. Marks on the others are gone; Undo brings them back.`,
      );
    setReplacing(null);
  };
  return (
    <Card style={{ padding: 12 }} testID="documents-card">
      <Heading>Documents</Heading>
      <input
        ref={input}
        type="file"
        accept={PAPER_FILES}
        aria-label="Choose the file that takes this document’s place"
        data-testid="replace-input"
        style={{ display: 'none' }}
        onChange={(e) => {
          void replace(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
      {tools.error ? <Trouble error={tools.error} /> : null}
      {told ? <Note tone="plain" title={told} /> : null}
      {draft.documents.map((d, i) => {
        const doc = packet.documents.find((x) => x.id === d.id);
        const name = nameOf(d.id);
        const next = draft.documents[i + 1];
        return (
          <View key={d.id}>
            {renaming === d.id ? (
              <LateInput
                label="Name of the document"
                value={name}
                onSave={(value) => {
                  if (value.trim()) void tools.change(d.id, { name: value.trim() });
                  setRenaming(null);
                }}
              />
            ) : null}
            <View style={{ flexDirection: 'row', alignItems: 'center' }}>
              <View style={{ flex: 1 }}>
                <Body>{name}</Body>
                <Small>{doc ? `${TYPE_WORDS[doc.type]}, ${count(doc.pages.length, 'page')}` : ''}</Small>
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
              <DropMenu
                anchor={(open) => (
                  <IconButton name="more" label={`More about ${name}`} onPress={open} testID={`document-more-${i}`} />
                )}
              >
                {(close) => (
                  <>
                    <Menu.Item title="Rename" onPress={close(() => setRenaming(d.id))} />
                    <Menu.Item
                      title="Replace the file, keep the marks"
                      onPress={close(() => {
                        setReplacing(d.id);
                        setTold(null);
                        input.current?.click();
                      })}
                    />
                    {next ? (
                      <Menu.Item
                        title={`Join with ${nameOf(next.id)}`}
                        onPress={close(() => void tools.join([d.id, next.id], name))}
                      />
                    ) : null}
                    <Menu.Item
                      title="The file as it was brought in"
                      onPress={close(() => window.open(pathOf('documentFile', { documentId: d.id }), '_blank'))}
                    />
                    <Menu.Item
                      title="Take it out of the packet"
                      onPress={close(() => edit(editsToDropDocument(draft, d.id)))}
                    />
                  </>
                )}
              </DropMenu>
            </View>
            {doc ? (
              <DropMenu
                anchor={(open) => (
                  <Button kind="quiet" onPress={open} style={{ alignSelf: 'flex-start', minHeight: 44 }}>
                    {`Type: ${TYPE_WORDS[doc.type]}`}
                  </Button>
                )}
              >
                {(close) =>
                  DOCUMENT_TYPES.map((t) => (
                    <Menu.Item
                      key={t}
                      title={TYPE_WORDS[t]}
                      onPress={close(() => void tools.change(d.id, { type: t }))}
                    />
                  ))
                }
              </DropMenu>
            ) : null}
          </View>
        );
      })}
      {tools.busy ? <Small>Working on it…</Small> : null}
      <AddPapers desk={desk} />
      {addable.map((d) => (
        <Button key={d.id} icon="plus" onPress={() => edit([{ op: 'put', list: 'documents', item: { id: d.id } }])}>
          {`Add ${d.name}`}
        </Button>
      ))}
    </Card>
  );
}

/** Papers brought in at the desk: into the deal, and into this packet as soon as their pages are read. */
export function AddPapers({ desk }: { desk: Desk }) {
  const tools = useDocumentTools(desk);
  const [reading, setReading] = useState<string[]>([]);
  const latest = useRef(desk);
  latest.current = desk;
  const uploads = useUploads(desk.packet.dealId, (doc) => {
    setReading((was) => [...was, doc.name]);
    void tools.settle(doc).then((ready) => {
      setReading((was) => was.filter((n) => n !== doc.name));
      if (ready) latest.current.edit([{ op: 'put', list: 'documents', item: { id: ready.id } }]);
    });
  });
  return (
    <View style={{ gap: 8 }}>
      {tools.error ? <Trouble error={tools.error} /> : null}
      <DocumentDrop {...uploads} />
      {reading.map((name) => (
        <Small key={name}>{`Reading ${name}…`}</Small>
      ))}
    </View>
  );
}

/** Name, subject and message; they are saved when the field is left, not with every letter. */
export function WordsCard({ desk }: { desk: Desk }) {
  const { draft, edit } = desk;
  return (
    <Card style={{ padding: 12 }}>
      <Heading>Message</Heading>
      <LateInput
        label="Name of the packet"
        value={draft.name}
        onSave={(value) => value.trim() && edit([{ op: 'set', field: 'name', value }])}
      />
      <LateInput
        label="Subject"
        value={draft.subject}
        onSave={(value) => edit([{ op: 'set', field: 'subject', value }])}
      />
      <LateInput
        label="Message to everyone (optional)"
        multiline
        value={draft.message}
        onSave={(value) => edit([{ op: 'set', field: 'message', value }])}
      />
      <Small>{`Words in curly brackets come from the deal: ${[...desk.view.tags.keys()]
        .slice(0, 4)
        .map((t) => `{${t}}`)
        .join(', ')}.`}</Small>
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
