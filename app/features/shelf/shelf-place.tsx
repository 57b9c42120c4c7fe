/** The shelf: the firm's forms and kits, so that what was right once stays right. */
import { router, useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { Image, Pressable, View } from 'react-native';
import { ProgressBar } from 'react-native-paper';
import type { ShelfSummary } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { shortDay } from '@gatepath/core/calendar';
import { TYPE_WORDS } from '@gatepath/core/reading';
import { count, listWords } from '@gatepath/core/text';
import { useAct } from '../../api/act';
import { keys } from '../../api/keys';
import { uploadFile } from '../../api/client';
import { useNewOnShelf, useShelf, type ShelfKind } from '../../api/shelf-hooks';
import { useFilePick } from '../../ui/file-pick';
import { usePalette, useSettled, useWide } from '../../ui/hooks';
import { ListPage } from '../../ui/list-page';
import { ActError, Button, Card, Note, Trouble } from '../../ui/pieces';
import { SearchBar } from '../../ui/search-bar';
import { Body, Heading, Small, Strong } from '../../ui/text';
import { PAPER_FILES } from '../../ui/paper-files';
import { ShelfHead } from './shelf-head';
import { SlotPath, SlotToken } from './slot-path';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export function ShelfPlace() {
  const wide = useWide();
  const asked = useLocalSearchParams<{ what?: string }>().what;
  const [what, setWhat] = useState<ShelfKind>(asked === 'form' ? 'form' : 'kit');
  const [retired, setRetired] = useState(false);
  const [search, setSearch] = useState('');
  const list = useShelf(what, useSettled(search, 150), retired);
  const header = (
    <>
      <ShelfHead
        what={what}
        onWhat={setWhat}
        acts={
          <>
            <NewForm />
            <WriteForm />
            <BringBundle />
            <Button
              kind="main"
              icon="plus"
              onPress={() => router.push('/shelf/new-kit')}
              testID="new-kit"
              style={wide ? null : { flex: 1 }}
            >
              {TEXT.newKit}
            </Button>
          </>
        }
      >
        <Button kind="quiet" onPress={() => setRetired(!retired)}>
          {retired ? TEXT.showThoseInUse : TEXT.showRetiredOnes}
        </Button>
      </ShelfHead>
      <SearchBar
        placeholder={what === 'kit' ? TEXT.findAKit : TEXT.findAForm}
        value={search}
        onChangeText={setSearch}
        testID="find-on-shelf"
        style={wide ? { maxWidth: 420 } : undefined}
      />
    </>
  );
  return (
    <ListPage
      header={header}
      what={TEXT.theShelf}
      more={what === 'kit' ? TEXT.showMoreKits : TEXT.showMoreForms}
      list={list}
      render={(item) => (item.what === 'kit' ? <KitCard kit={item} /> : <FormCard form={item} />)}
      empty={<Empty what={what} search={search} retired={retired} />}
    />
  );
}

function Empty({ what, search, retired }: { what: ShelfKind; search: string; retired: boolean }) {
  return (
    <Card>
      <Heading>
        {search ? TEXT.nothingFound : retired ? TEXT.noneRetired : what === 'kit' ? TEXT.noKitsYet : TEXT.noFormsYet}
      </Heading>
      {search || retired ? null : <Body>{what === 'kit' ? TEXT.aKitIsAPacket : TEXT.aFormIsAPaper}</Body>}
    </Card>
  );
}

/** Adds a paper as a form and opens its desk. */
function NewForm() {
  const p = usePalette();
  const [part, setPart] = useState<number | null>(null);
  const [error, setError] = useState<unknown>(null);
  const bring = async (file: File) => {
    setError(null);
    setPart(0);
    try {
      const form = await uploadFile('newForm', file, { onProgress: setPart });
      router.push(`/forms/${form.id}`);
    } catch (e) {
      setError(e);
    } finally {
      setPart(null);
    }
  };
  const pick = useFilePick({
    accept: PAPER_FILES,
    label: TEXT.chooseThePaperThatBecomes,
    testID: 'form-input',
    onFile: (file) => void bring(file),
  });
  return (
    <Stack gap={8}>
      {pick.field}
      <Button icon="file-plus" onPress={pick.open} busy={part !== null} testID="new-form">
        {TEXT.addAFormFrom}
      </Button>
      {part === null ? null : <ProgressBar progress={part} color={p.brick} aria-label={TEXT.sendingTheForm} />}
      {error ? <Trouble error={error} /> : null}
    </Stack>
  );
}

/** Imports forms and kits that another firm shared. */
function BringBundle() {
  const bring = useAct((file: File) => uploadFile('bringBundle', file, {}), { renews: [keys.shelf] });
  const pick = useFilePick({
    accept: '.zip,application/zip',
    label: TEXT.chooseTheFileWithForms,
    testID: 'bundle-input',
    onFile: (file) => bring.mutate(file),
  });
  const items = bring.data?.items ?? [];
  return (
    <Stack gap={8}>
      {pick.field}
      <Button kind="quiet" icon="download" onPress={pick.open} busy={bring.isPending} testID="bring-bundle">
        {TEXT.importSharedForms}
      </Button>
      <ActError of={bring} />
      {items.length ? (
        <Note
          tone="good"
          title={TEXT.importedCheckEachOneThen(listWords(items.map((i) => i.name)))}
          testID="bundle-done"
        />
      ) : null}
    </Stack>
  );
}

/** Makes a written form and opens its text. */
function WriteForm() {
  const { written } = useNewOnShelf();
  return (
    <Stack gap={8}>
      <Button
        icon="pencil"
        busy={written.isPending}
        onPress={() =>
          written.mutate({ name: TEXT.newForm }, { onSuccess: (form) => router.push(`/forms/${form.id}`) })
        }
        testID="write-form"
      >
        {TEXT.writeAForm}
      </Button>
      <ActError of={written} />
    </Stack>
  );
}

/** Returns the status of an item in words. */
export function statusWords(i: Pick<ShelfSummary, 'edition' | 'changed' | 'retired' | 'endsOn'>): string {
  if (i.retired) return 'retired';
  if (!i.edition) return TEXT.notOnTheShelfYet;
  return [
    TEXT.edition(i.edition),
    i.changed ? TEXT.changedSince : '',
    i.endsOn ? TEXT.until(shortDay(i.endsOn, '')) : '',
  ]
    .filter(Boolean)
    .join(', ');
}

function KitCard({ kit }: { kit: ShelfSummary }) {
  return (
    <Pressable
      role="link"
      testID="kit-card"
      aria-label={`${kit.name}, ${count(kit.forms.length, 'form')}, ${statusWords(kit)}`}
      onPress={() => router.push(`/shelf/${kit.id}`)}
    >
      <Card>
        <Strong style={{ fontSize: 18 }}>{kit.name}</Strong>
        <SlotPath slots={kit.slots} gates={kit.gates} />
        <Small numberOfLines={2}>{`${kit.forms.join(', ')}. ${count(kit.pages, 'page')}`}</Small>
        <Small>{statusWords(kit)}</Small>
      </Card>
    </Pressable>
  );
}

function FormCard({ form }: { form: ShelfSummary }) {
  const p = usePalette();
  return (
    <Pressable
      role="link"
      testID="form-card"
      aria-label={`${form.name}, ${statusWords(form)}`}
      onPress={() => router.push(`/forms/${form.id}`)}
    >
      <Card gap={12} style={{ flexDirection: 'row' }}>
        <View style={{ width: 64, height: 84, borderWidth: 1, borderColor: p.rule, backgroundColor: '#FFFFFF' }}>
          {form.documentId ? (
            <Image
              source={{ uri: urlOf('documentPage', { documentId: form.documentId, page: 1 }) }}
              style={{ width: 62, height: 82 }}
              resizeMode="contain"
              alt=""
            />
          ) : null}
        </View>
        <Stack gap={4} grow>
          <Strong style={{ fontSize: 18 }}>{form.name}</Strong>
          <Small>
            {[
              form.type && form.type !== 'other' ? TYPE_WORDS[form.type] : '',
              count(form.pages, 'page'),
              statusWords(form),
            ]
              .filter(Boolean)
              .join(' · ')}
          </Small>
          <Row gap={4} align="stretch" wrap>
            {form.slots.map((s) => (
              <SlotToken key={s.id} slot={s} />
            ))}
          </Row>
        </Stack>
      </Card>
    </Pressable>
  );
}
