/** The documents of a draft in order, and what can be done with each. */
import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { urlOf } from '@gatepath/contract/paths';
import { editsToRemoveDocument } from '@gatepath/core/packet';
import { DOCUMENT_TYPES, TYPE_WORDS } from '@gatepath/core/reading';
import { count } from '@gatepath/core/text';
import { useFilePick } from '../../ui/file-pick';
import { LateInput } from '../../ui/late-input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, Card, IconButton, Note, Trouble } from '../../ui/pieces';
import { Body, Heading, Small } from '../../ui/text';
import { PAPER_FILES } from '../../ui/paper-files';
import { AddPapers } from './packet-cards';
import type { Desk } from './use-desk';
import { useDocumentTools } from './use-document-tools';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

type Tools = ReturnType<typeof useDocumentTools>;

export function DocumentsCard({ desk }: { desk: Desk }) {
  const { draft, edit, packet } = desk;
  const tools = useDocumentTools(desk);
  const [replacing, setReplacing] = useState<string | null>(null);
  const [told, setTold] = useState<ReplacedFile | null>(null);
  const addable = packet.documents.filter(
    (d) => d.status === 'ready' && !d.replacedBy && !draft.documents.some((x) => x.id === d.id),
  );
  const replace = async (file: File) => {
    if (!replacing) return;
    const done = await tools.replace(replacing, file);
    if (done)
      setTold({
        words:
          done.kept === done.of
            ? TEXT.theFileWasReplacedEvery
            : TEXT.theFileWasReplacedOf(done.kept, count(done.of, 'page')),
        id: done.id,
        was: replacing,
      });
    setReplacing(null);
  };
  const pick = useFilePick({
    accept: PAPER_FILES,
    label: TEXT.chooseTheFileThatTakes,
    testID: 'replace-input',
    onFile: (file) => void replace(file),
  });
  return (
    <Card style={{ padding: 12 }} testID="documents-card">
      <Heading>{TEXT.documents}</Heading>
      {pick.field}
      {tools.error ? <Trouble error={tools.error} /> : null}
      {told ? <Replaced {...told} /> : null}
      {draft.documents.map((d, i) => (
        <DocumentRow
          key={d.id}
          desk={desk}
          tools={tools}
          index={i}
          onReplace={() => {
            setReplacing(d.id);
            setTold(null);
            pick.open();
          }}
        />
      ))}
      {tools.busy ? <Small>{TEXT.workingOn}</Small> : null}
      <AddPapers desk={desk} />
      {addable.map((d) => (
        <Button key={d.id} icon="plus" onPress={() => edit([{ op: 'put', list: 'documents', item: { id: d.id } }])}>
          {TEXT.add(d.name)}
        </Button>
      ))}
    </Card>
  );
}

interface ReplacedFile {
  words: string;
  id: string;
  /** The document it replaced. */
  was: string;
}

/** What happened to the marks, and a link to what changed. */
const Replaced = ({ words, id, was }: ReplacedFile) => (
  <Note
    tone="plain"
    title={words}
    action={
      <Button kind="quiet" onPress={() => router.push(`/changes/${id}/${was}`)} testID="what-changed">
        {TEXT.whatChanged}
      </Button>
    }
  />
);

interface RowProps {
  desk: Desk;
  tools: Tools;
  index: number;
  onReplace: () => void;
}

const documentAt = (desk: Desk, index: number) => {
  const id = desk.draft.documents[index]?.id;
  return id === undefined ? null : { id, doc: desk.packet.documents.find((x) => x.id === id) };
};

function DocumentRow({ desk, tools, index, onReplace }: RowProps) {
  const [renaming, setRenaming] = useState(false);
  const here = documentAt(desk, index);
  if (!here) return null;
  const { id, doc } = here;
  const name = doc?.name ?? TEXT.document;
  const move = (to: number) =>
    desk.edit([{ op: 'put', list: 'documents', item: desk.draft.documents[index] ?? { id }, index: to }]);
  return (
    <View>
      {renaming ? (
        <LateInput
          label={TEXT.nameOfTheDocument}
          value={name}
          onSave={(value) => {
            if (value.trim()) void tools.change(id, { name: value.trim() });
            setRenaming(false);
          }}
        />
      ) : null}
      <Row>
        <Stack grow>
          <Body>{name}</Body>
          <Small>{doc ? `${TYPE_WORDS[doc.type]}, ${count(doc.pages.length, 'page')}` : ''}</Small>
        </Stack>
        <IconButton name="arrow-up" label={TEXT.earlier(name)} disabled={index === 0} onPress={() => move(index - 1)} />
        <IconButton
          name="arrow-down"
          label={TEXT.later(name)}
          disabled={index === desk.draft.documents.length - 1}
          onPress={() => move(index + 1)}
        />
        <DocumentMenu
          desk={desk}
          tools={tools}
          index={index}
          onReplace={onReplace}
          onRename={() => setRenaming(true)}
        />
      </Row>
      {doc ? (
        <DropMenu
          anchor={(open) => (
            <Button kind="quiet" onPress={open} fit style={{ minHeight: 44 }}>
              {TEXT.type(TYPE_WORDS[doc.type])}
            </Button>
          )}
        >
          {DOCUMENT_TYPES.map((t) => (
            <MenuItem key={t} title={TYPE_WORDS[t]} onPress={() => void tools.change(id, { type: t })} />
          ))}
        </DropMenu>
      ) : null}
    </View>
  );
}

function DocumentMenu({ desk, tools, index, onReplace, onRename }: RowProps & { onRename: () => void }) {
  const here = documentAt(desk, index);
  const next = documentAt(desk, index + 1);
  if (!here) return null;
  const { id } = here;
  const name = here.doc?.name ?? TEXT.document;
  return (
    <DropMenu
      anchor={(open) => (
        <IconButton name="more" label={TEXT.moreAbout(name)} onPress={open} testID={`document-more-${index}`} />
      )}
    >
      <MenuItem title={TEXT.rename} onPress={onRename} />
      <MenuItem title={TEXT.replaceTheFileKeep} onPress={onReplace} />
      {next ? (
        <MenuItem
          title={TEXT.joinWith(next.doc?.name ?? TEXT.document)}
          onPress={() => void tools.join([id, next.id], name)}
        />
      ) : null}
      <MenuItem
        title={TEXT.theOriginalFile}
        onPress={() => window.open(urlOf('documentFile', { documentId: id }), '_blank')}
      />
      <MenuItem title={TEXT.removeItFromThePacket} onPress={() => desk.edit(editsToRemoveDocument(desk.draft, id))} />
    </DropMenu>
  );
}
