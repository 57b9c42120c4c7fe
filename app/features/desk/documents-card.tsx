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
import { useDesk, useDeskActs, useOnDesk } from './use-desk';
import { useDocumentTools } from './use-document-tools';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

type Tools = ReturnType<typeof useDocumentTools>;

export function DocumentsCard() {
  const { draft, edit, packet } = useOnDesk();
  const tools = useDocumentTools();
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
      <AddPapers />
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
  tools: Tools;
  index: number;
  onReplace: () => void;
}

/** Returns the document at an index of the draft; null if there is none. */
const useDocumentAt = (index: number) => {
  const { id, doc } = useDesk(({ draft, packet }) => {
    const id = draft.documents[index]?.id;
    return { id, doc: packet.documents.find((x) => x.id === id) };
  });
  return id === undefined ? null : { id, doc };
};

function DocumentRow({ tools, index, onReplace }: RowProps) {
  const { edit } = useDeskActs();
  const { item, last } = useDesk(({ draft: { documents } }) => ({
    item: documents[index],
    last: documents.length - 1,
  }));
  const [renaming, setRenaming] = useState(false);
  const here = useDocumentAt(index);
  if (!here) return null;
  const { id, doc } = here;
  const name = doc?.name ?? TEXT.document;
  const move = (to: number) => edit([{ op: 'put', list: 'documents', item: item ?? { id }, index: to }]);
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
          disabled={index === last}
          onPress={() => move(index + 1)}
        />
        <DocumentMenu tools={tools} index={index} onReplace={onReplace} onRename={() => setRenaming(true)} />
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

function DocumentMenu({ tools, index, onReplace, onRename }: RowProps & { onRename: () => void }) {
  const { draft, edit } = useOnDesk();
  const here = useDocumentAt(index);
  const next = useDocumentAt(index + 1);
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
      <MenuItem title={TEXT.removeItFromThePacket} onPress={() => edit(editsToRemoveDocument(draft, id))} />
    </DropMenu>
  );
}
