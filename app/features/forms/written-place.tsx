/** A form that is written here: its text, its roles, and its paper. */
import { router } from 'expo-router';
import { lazy, Suspense, useState } from 'react';
import { View } from 'react-native';
import type { ShelfItemView } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import type { DraftEdit, InitialsRule } from '@gatepath/core/packet';
import { newId } from '../../api/client';
import { useSession } from '../../api/hooks';
import { useShelfActs } from '../../api/shelf-hooks';
import { usePalette, useWide } from '../../ui/hooks';
import { ItemMenu } from '../../ui/menu';
import { ActError, Button, Card, Choice, IconButton, Loading, Note, Page } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Heading, Small, Title } from '../../ui/text';
import { useDraft, type DraftHandle } from '../desk/use-draft';
import { AtRect } from '../pages/mark-box';
import { Sheet } from '../pages/sheet';
import { About, Editions, Roles } from '../shelf/form-part';
import { SHELF_HOME } from '../shelf/home';
import { statusWords } from '../shelf/shelf-place';
import { Sharing } from '../shelf/sharing';
import { AboutProvider } from './about';
import { useText, type TextHandle } from './use-text';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

/** The editor is loaded when a member opens a written form. */
const FormEditor = lazy(async () => ({ default: (await import('./editor')).FormEditor }));

export type WrittenItem = ShelfItemView & { written: NonNullable<ShelfItemView['written']> };

const SHOWN = [
  { value: 'text', label: TEXT.text },
  { value: 'paper', label: TEXT.paper },
] as const;
type Shown = (typeof SHOWN)[number]['value'];

export function WrittenPlace({ item }: { item: WrittenItem }) {
  const wide = useWide();
  const [shown, setShown] = useState<Shown>('text');
  const handle = useDraft(item, SHELF_HOME);
  const text = useText(item);
  const { put } = useShelfActs(item.id);
  const there = item.edition > 0 && !item.changed;
  const saved = text.state === 'saved' && handle.saving.state === 'saved' && isRead(item);
  const roles = <RolesCard item={item} handle={handle} />;
  const rest = <Rest item={item} handle={handle} text={text} />;
  const editor = (
    <Suspense key="editor" fallback={<Loading what={TEXT.theText} />}>
      <FormEditor
        text={text.text}
        from={text.from}
        onChange={(doc) => text.change({ ...text.text, doc })}
        menu={ItemMenu}
      />
    </Suspense>
  );
  return (
    <AboutProvider value={{ roles: handle.draft.parties, tags: item.written.tags }}>
      <Page max={wide ? 1240 : 760}>
        <Head name={handle.draft.name} how={TEXT.writtenForm(statusWords(item), text.sentence)} />
        {text.state === 'refused' ? <Note tone="stop" title={text.sentence} testID="text-refused" /> : null}
        <ActError of={put} />
        <Button
          kind="main"
          disabled={there || !saved}
          busy={put.isPending}
          onPress={() => put.mutate(handle.version)}
          testID="put-on-shelf"
          fit
        >
          {there ? TEXT.onTheShelfEdition(item.edition) : TEXT.putOnTheShelf}
        </Button>
        {wide ? (
          <Row gap={16} align="start">
            <Stack gap={16} style={{ flex: 3, minWidth: 0 }}>
              {editor}
            </Stack>
            <Stack gap={16} style={{ flex: 2, minWidth: 0 }}>
              {roles}
              <Paper item={item} />
              {rest}
            </Stack>
          </Row>
        ) : (
          <>
            <Choice label={TEXT.whatIsShown} value={shown} options={[...SHOWN]} onChange={setShown} />
            {shown === 'text' ? editor : <Paper item={item} />}
            {roles}
            {rest}
          </>
        )}
      </Page>
    </AboutProvider>
  );
}

interface Part {
  item: WrittenItem;
  handle: DraftHandle;
}

function RolesCard({ item, handle }: Part) {
  return (
    <Card>
      <Heading>{TEXT.roles}</Heading>
      <Roles on={handle} />
      <EveryPage handle={handle} documentId={item.draft.documents[0]?.id ?? ''} />
    </Card>
  );
}

/** What is rarely changed. */
function Rest({ item, handle, text }: Part & { text: TextHandle }) {
  return (
    <>
      <About on={{ id: item.id, draft: handle.draft, edit: handle.edit }} />
      <LanguageCard language={text.text.language} onChange={(language) => text.change({ ...text.text, language })} />
      <Sharing item={item} />
      <Editions id={item.id} />
    </>
  );
}

const isRead = (item: WrittenItem) => item.documents.every((d) => d.status !== 'reading');

function Head({ name, how }: { name: string; how: string }) {
  return (
    <Row gap={8}>
      <IconButton name="arrow-left" label={TEXT.backToTheShelf} onPress={() => router.navigate('/shelf')} />
      <Stack grow>
        <Title numberOfLines={2}>{name}</Title>
        <Small testID="text-saving">{how}</Small>
      </Stack>
    </Row>
  );
}

/** The pages as they would be printed, with the places on them. */
function Paper({ item }: { item: WrittenItem }) {
  const p = usePalette();
  const [page, setPage] = useState(1);
  const [width, setWidth] = useState(0);
  const document = item.documents.find((d) => d.id === item.draft.documents[0]?.id);
  const at = Math.min(page, document?.pages.length ?? 1);
  const size = document?.pages[at - 1];
  if (!document || !size) return null;
  const scale = width / size.width;
  const marks = item.draft.marks.filter((m) => m.page === at);
  return (
    <Card testID="form-paper">
      <Row>
        <Heading style={{ flex: 1 }}>{TEXT.paper}</Heading>
        <IconButton name="arrow-left" label={TEXT.thePageBefore} disabled={at === 1} onPress={() => setPage(at - 1)} />
        <Small>{TEXT.pageOf(at, document.pages.length)}</Small>
        <IconButton
          name="arrow-right"
          label={TEXT.theNextPage}
          disabled={at === document.pages.length}
          onPress={() => setPage(at + 1)}
        />
      </Row>
      <View onLayout={(e) => setWidth(e.nativeEvent.layout.width)}>
        {width ? (
          <Sheet
            page={size}
            url={urlOf('documentPage', { documentId: document.id, page: at })}
            width={width}
            label={TEXT.pageOfThePaper(at, marks.length)}
          >
            {marks.map((m) => (
              <AtRect key={m.id} rect={m.rect} scale={scale}>
                <View style={{ flex: 1, borderWidth: 1.5, borderColor: p.brick, borderRadius: 3 }} />
              </AtRect>
            ))}
          </Sheet>
        ) : null}
      </View>
      <Small>{TEXT.onADealTheTags}</Small>
    </Card>
  );
}

/** Who puts initials on every page. */
function EveryPage({ handle: { draft, edit }, documentId }: { handle: DraftHandle; documentId: string }) {
  const rule = draft.rules[0];
  const turn = (id: string, on: boolean) => {
    const now = (rule?.partyIds ?? []).filter((x) => x !== id);
    const partyIds = on ? draft.parties.map((x) => x.id).filter((x) => x === id || now.includes(x)) : now;
    const item: InitialsRule = {
      ...(rule ?? { id: newId(), documentId, anchor: { fx: 1, fy: 1 }, except: [], moved: [] }),
      partyIds,
    };
    const edits: DraftEdit[] = [
      partyIds.length || !rule ? { op: 'put', list: 'rules', item } : { op: 'drop', list: 'rules', id: rule.id },
    ];
    edit(edits);
  };
  const signing = draft.parties.filter((x) => x.act === 'sign' || x.act === 'desk');
  return signing.length ? (
    <View style={{ marginTop: 6 }}>
      <Small>{TEXT.initialsAtTheFoot}</Small>
      {signing.map((x) => (
        <Switch
          key={x.id}
          label={x.name}
          on={rule?.partyIds.includes(x.id) ?? false}
          onChange={(on) => turn(x.id, on)}
          testID={`every-page-${x.name}`}
        />
      ))}
    </View>
  ) : null;
}

function LanguageCard({ language, onChange }: { language: string; onChange: (tag: string) => void }) {
  const session = useSession();
  const languages = session.data?.languages ?? [];
  return (
    <Card>
      <Heading>{TEXT.languageOfThePaper}</Heading>
      <Choice
        label={TEXT.languageOfThePaper}
        value={language}
        wrap
        options={languages.map((l) => ({ value: l.tag, label: l.name }))}
        onChange={onChange}
      />
      <Small>{TEXT.amountsDatesNumbersAndLists}</Small>
    </Card>
  );
}
