/** A paper of the deal: its type and status, and its pages, file and signatures behind it. */
import { router } from 'expo-router';
import { useState } from 'react';
import { Linking, Pressable } from 'react-native';
import { ProgressBar } from 'react-native-paper';
import { urlOf, type DealView, type DocumentPatch, type DocumentView } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import type { Corner, DocumentStatus } from '@gatepath/core/deal';
import { DOCUMENT_TYPES, TYPE_WORDS } from '@gatepath/core/reading';
import { count } from '@gatepath/core/text';
import { useDealChanges } from '../../api/deal-hooks';
import { ConfirmRemove } from '../../ui/confirm';
import { PaperCorner } from '../../ui/corner';
import { LateDay } from '../../ui/day-field';
import { usePalette } from '../../ui/hooks';
import { DropMenu, MenuItem } from '../../ui/menu';
import { ActError, Button, IconButton } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Small, Strong } from '../../ui/text';
import type { Earlier } from './earlier';
import { LeftOutNote } from './left-out';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

type DealDocument = DealView['papers'][number];

const CORNERS: Record<DocumentStatus, Corner> = {
  executed: 'executed',
  elsewhere: 'executed',
  out: 'out',
  draft: 'draft',
  here: 'needed',
};

interface Props {
  doc: DocumentView;
  inDeal: DealDocument | null;
  today: string;
  /** The version before it. */
  earlier: Earlier | null;
  /** Papers it can be compared with. */
  others: DocumentView[];
  onDrop: () => void;
}

export function DocumentRow({ doc, inDeal, today, earlier, others, onDrop }: Props) {
  const p = usePalette();
  const [open, setOpen] = useState(false);
  const reading = doc.status === 'reading';
  const words = [
    `${TYPE_WORDS[doc.type]}, ${count(doc.pages.length, 'page')}`,
    doc.unsigned ? TEXT.onFileOnly : (inDeal?.words ?? ''),
    doc.endsOn ? TEXT.until(shortDay(doc.endsOn, today)) : '',
  ];
  return (
    <Stack testID="document-row" gap={4}>
      <Row gap={8} style={{ minHeight: 44 }}>
        <Pressable
          role="button"
          aria-expanded={open}
          aria-label={`${doc.name}: ${words.filter(Boolean).join(', ')}`}
          onPress={() => setOpen(!open)}
          style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 10, minHeight: 44 }}
        >
          <PaperCorner corner={CORNERS[inDeal?.status ?? 'here']} />
          <Stack grow>
            <Strong>{doc.name}</Strong>
            {doc.status === 'failed' ? (
              <Small tone="stop">{doc.problem}</Small>
            ) : (
              <Small>{reading ? readingWords(doc) : words.filter(Boolean).join(' · ')}</Small>
            )}
          </Stack>
        </Pressable>
        <ConfirmRemove label={TEXT.remove(doc.name)} onRemove={onDrop} />
      </Row>
      <LeftOutNote doc={doc} />
      {earlier ? <SinceEarlier doc={doc} earlier={earlier} /> : null}
      {reading ? (
        <ProgressBar
          progress={doc.pagesRead / Math.max(1, doc.pages.length)}
          color={p.brick}
          aria-label={TEXT.reading(doc.name)}
        />
      ) : null}
      {reading && doc.scanned ? <WithoutWords doc={doc} /> : null}
      {open ? <Detail doc={doc} others={others} /> : null}
    </Stack>
  );
}

/** A later version: what changed; that it replaces the other one, if it only has the same type; and undoing that. */
function SinceEarlier({ doc, earlier }: { doc: DocumentView; earlier: Earlier }) {
  const { document } = useDealChanges(doc.dealId ?? '');
  const { doc: was, replaced } = earlier;
  const same = was.name === doc.name;
  return (
    <Row wrap>
      <Button
        kind="quiet"
        onPress={() => router.push(`/changes/${doc.id}/${was.id}`)}
        label={TEXT.whatChangedInSince(doc.name, same ? TEXT.theFileBefore : was.name)}
        testID="what-changed"
      >
        {replaced && same ? TEXT.whatChangedSinceTheFile : TEXT.whatChangedSince(was.name)}
      </Button>
      <Button
        kind="quiet"
        disabled={document.isPending}
        onPress={() => document.mutate({ documentId: was.id, body: { replacedBy: replaced ? null : doc.id } })}
        label={replaced ? TEXT.keepBeside(was.name, doc.name) : TEXT.replaces(doc.name, was.name)}
        testID={replaced ? 'keep-both' : 'takes-place'}
      >
        {replaced ? TEXT.keepBothPapers : TEXT.replaceTheEarlierOne}
      </Button>
      <ActError of={document} />
    </Row>
  );
}

/** Seconds that recognizing a page takes, roughly. */
const A_PAGE = 8;

/** Returns how far the reading of a paper is, and roughly how long it will take. */
function readingWords(doc: DocumentView): string {
  if (!doc.scanned) return TEXT.readingPageOf(doc.pagesRead, doc.pages.length);
  const left = Math.max(1, doc.pages.length - doc.pagesRead) * A_PAGE;
  const time =
    left < 90
      ? 'about a minute'
      : left < 5400
        ? TEXT.aboutMinutes(Math.round(left / 60))
        : TEXT.aboutHours(Math.round(left / 3600));
  return TEXT.scanRecognizingTheWordsOf(Math.min(doc.pagesRead + 1, doc.pages.length), doc.pages.length, time);
}

/** Skips recognition: the marks are placed by hand. */
function WithoutWords({ doc }: { doc: DocumentView }) {
  const { document } = useDealChanges(doc.dealId ?? '');
  return (
    <>
      <Button
        kind="quiet"
        disabled={document.isPending}
        onPress={() => document.mutate({ documentId: doc.id, body: { withoutWords: true } })}
        fit
        testID="without-words"
      >
        {TEXT.continueWithoutRecognizedWords}
      </Button>
      <ActError of={document} />
    </>
  );
}

/** A page of the paper, small, with buttons to the others. */
function PagePicture({ doc }: { doc: DocumentView }) {
  const p = usePalette();
  const [page, setPage] = useState(1);
  const size = doc.pages[page - 1];
  if (!size || doc.status === 'failed') return null;
  return (
    <Stack gap={4} align="center">
      <img
        src={`${urlOf('documentPage', { documentId: doc.id, page })}?dpi=72`}
        alt={TEXT.pageOfDocument(page, doc.name)}
        style={{
          width: '100%',
          maxWidth: 420,
          aspectRatio: `${size.width} / ${size.height}`,
          border: `1px solid ${p.rule}`,
          background: '#fff',
        }}
      />
      {doc.pages.length > 1 ? (
        <Row>
          <IconButton
            name="chevron-left"
            label={TEXT.pageBefore}
            disabled={page === 1}
            onPress={() => setPage(page - 1)}
          />
          <Small>{TEXT.pageOfOf(page, doc.pages.length)}</Small>
          <IconButton
            name="chevron-right"
            label={TEXT.nextPage}
            disabled={page === doc.pages.length}
            onPress={() => setPage(page + 1)}
          />
        </Row>
      ) : null}
    </Stack>
  );
}

/** The paper's type, its file, and what it can be compared with. */
function Ways({
  doc,
  others,
  onType,
}: {
  doc: DocumentView;
  others: DocumentView[];
  onType: (type: DocumentView['type']) => void;
}) {
  return (
    <Row gap={8} align="stretch" wrap>
      <DropMenu
        anchor={(open) => (
          <Button icon="chevron-down" onPress={open} label={TEXT.typeChange(TYPE_WORDS[doc.type])} testID="paper-type">
            {TYPE_WORDS[doc.type]}
          </Button>
        )}
      >
        {DOCUMENT_TYPES.map((type) => (
          <MenuItem key={type} title={TYPE_WORDS[type]} testID={`type-${type}`} onPress={() => onType(type)} />
        ))}
      </DropMenu>
      <Button icon="download" onPress={() => void Linking.openURL(urlOf('documentFile', { documentId: doc.id }))}>
        {TEXT.asItCame}
      </Button>
      {doc.dealId ? (
        <Button icon="check" onPress={() => router.push(`/deals/${doc.dealId}/back/${doc.id}`)} testID="came-back">
          {TEXT.reviewASignedCopy}
        </Button>
      ) : null}
      {others.length && doc.status === 'ready' ? (
        <DropMenu
          anchor={(open) => (
            <Button icon="pages" onPress={open} label={TEXT.compareWithAnotherPaper(doc.name)}>
              {TEXT.compareWith}
            </Button>
          )}
        >
          {others.map((d) => (
            <MenuItem
              key={d.id}
              title={d.name}
              testID="compare-with"
              onPress={() => router.push(`/changes/${doc.id}/${d.id}`)}
            />
          ))}
        </DropMenu>
      ) : null}
    </Row>
  );
}

function Detail({ doc, others }: { doc: DocumentView; others: DocumentView[] }) {
  const p = usePalette();
  const { document } = useDealChanges(doc.dealId ?? '');
  const set = (body: DocumentPatch) => document.mutate({ documentId: doc.id, body });
  return (
    <Stack
      testID="document-detail"
      gap={8}
      style={{ borderWidth: 1, borderColor: p.rule, borderRadius: 12, padding: 12, backgroundColor: p.paper }}
    >
      <PagePicture doc={doc} />
      <Ways doc={doc} others={others} onType={(type) => set({ type })} />
      <Switch
        label={TEXT.noSignaturesNeededOnFile}
        on={doc.unsigned}
        onChange={(unsigned) => set({ unsigned })}
        testID="unsigned"
      />
      <LateDay
        label={TEXT.signedElsewhere}
        value={doc.elsewhereOn ?? ''}
        onSave={(day) => set({ elsewhereOn: day || null })}
        testID="elsewhere-on"
      />
      <LateDay
        label={TEXT.validUntil}
        value={doc.endsOn ?? ''}
        onSave={(day) => set({ endsOn: day || null })}
        testID="ends-on"
      />
      <ActError of={document} />
    </Stack>
  );
}
