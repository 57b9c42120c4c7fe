/** Importing a table: the fields of its columns, what is wrong with which row, then all rows or the good ones. */
import { useQueryClient } from '@tanstack/react-query';
import { router, useLocalSearchParams } from 'expo-router';
import { useRef, useState } from 'react';
import { View } from 'react-native';
import type { ImportView } from '@gatepath/contract';
import { TABLE_KINDS, type TableKind } from '@gatepath/core/intake';
import { count } from '@gatepath/core/text';
import { isOneOf } from '@gatepath/core/sure';
import { useAct } from '../../api/act';
import { keys } from '../../api/keys';
import { uploadFile } from '../../api/client';
import { useFilePick } from '../../ui/file-pick';
import { ActError, Button, Card, Choice, IconButton, Note, Page } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { Columns, withField } from './columns';
import { TEXT } from './words';
import { Actions, Row } from '../../ui/layout';

const WHAT: Record<TableKind, string> = { deals: TEXT.deals, people: TEXT.people };

export function ImportPlace() {
  const asked = useLocalSearchParams<{ what?: string }>().what ?? '';
  const [kind, setKind] = useState<TableKind>(isOneOf(TABLE_KINDS, asked) ? asked : 'people');
  const [file, setFile] = useState<File | null>(null);
  const pick = useFilePick({
    accept: '.csv,.txt,.vcf,text/csv,text/vcard',
    label: TEXT.theFile,
    testID: 'import-file',
    onFile: setFile,
  });
  return (
    <Page max={760}>
      <Row gap={4}>
        <IconButton name="arrow-left" label={TEXT.backToTheList} onPress={() => router.navigate(`/${kind}`)} />
        <Title>{TEXT.importATable}</Title>
      </Row>
      <Card>
        <Choice
          label={TEXT.whatItsRows}
          value={kind}
          options={TABLE_KINDS.map((k) => ({ value: k, label: WHAT[k] }))}
          onChange={setKind}
        />
        <Body>{kind === 'people' ? TEXT.aCsvFile : TEXT.aCsvFile2}</Body>
        {pick.field}
        <Button icon="file-plus" onPress={pick.open} fit>
          {file ? TEXT.aFileOtherThan(file.name) : TEXT.chooseAFile}
        </Button>
      </Card>
      {file ? <Preview key={`${kind} ${file.name} ${file.lastModified}`} kind={kind} file={file} /> : null}
    </Page>
  );
}

interface Ask {
  take: 'none' | 'all' | 'good';
  map?: string[];
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function Preview({ kind, file }: { kind: TableKind; file: File }) {
  const client = useQueryClient();
  const [seen, setSeen] = useState<ImportView | null>(null);
  const begun = useRef(false);
  const look = useAct(
    ({ take, map }: Ask) =>
      uploadFile('importTable', file, {
        params: { tableKind: kind },
        query: { take, ...(map ? { map: map.join(',') } : {}) },
      }),
    {
      onDone: (view) => {
        setSeen(view);
        if (view.taken) void client.invalidateQueries({ queryKey: keys[kind] });
      },
    },
  );
  if (!begun.current) {
    begun.current = true;
    look.mutate({ take: 'none' });
  }
  const setField = (at: number, key: string) => {
    if (!seen) return;
    const map = withField(seen.map, at, key);
    setSeen({ ...seen, map });
    look.mutate({ take: 'none', map });
  };
  const taken = seen?.taken;
  return (
    <>
      <ActError of={look} />
      {look.isPending && !seen ? <Body>{TEXT.theTableIsBeingRead}</Body> : null}
      {taken ? (
        <Note
          tone="good"
          title={TEXT.imported(
            count(taken.added, kind === 'people' ? 'person' : 'deal', kind),
            taken.known ? TEXT.wereAlreadyThereAndStay(taken.known) : '',
          )}
          testID="import-done"
          action={
            <Button kind="quiet" onPress={() => router.navigate(`/${kind}`)} fit>
              {kind === 'people' ? TEXT.toTheAddressBook : TEXT.toTheDeals}
            </Button>
          }
        />
      ) : null}
      {seen && !taken ? (
        <>
          <Columns seen={seen} onSet={setField} />
          <Rows seen={seen} kind={kind} />
          <Card>
            <Actions>
              <Button
                kind="main"
                busy={look.isPending}
                disabled={!seen.good || seen.missing.length > 0}
                onPress={() => look.mutate({ take: seen.bad ? 'good' : 'all', map: seen.map })}
                testID="import-take"
              >
                {seen.bad ? TEXT.importThe(count(seen.good, TEXT.goodRow)) : TEXT.importAll(count(seen.good, 'row'))}
              </Button>
              <Button onPress={() => router.navigate(`/${kind}`)}>{TEXT.cancel}</Button>
            </Actions>
            {seen.bad ? <Small>{TEXT.toImportEverythingOrNothing}</Small> : null}
          </Card>
        </>
      ) : null}
    </>
  );
}

const AT_FIRST = 8;

function Rows({ seen, kind }: { seen: ImportView; kind: TableKind }) {
  const [all, setAll] = useState(false);
  const listed = all ? seen.wrong : seen.wrong.slice(0, AT_FIRST);
  return (
    <Card testID="import-rows">
      <Heading>
        {seen.bad
          ? TEXT.canBeImportedCannot(count(seen.good, 'row'), seen.bad)
          : TEXT.allCanBeImported(count(seen.good, 'row'))}
      </Heading>
      {seen.bad ? null : <Body>{TEXT.eachBecomesOne(kind)}</Body>}
      {listed.map((w) => (
        <View key={w.line}>
          <Strong>{TEXT.line(w.line)}</Strong>
          <Small>{w.why.join(' ')}</Small>
        </View>
      ))}
      {seen.wrong.length > listed.length ? (
        <Button kind="quiet" onPress={() => setAll(true)} fit>
          {TEXT.more(seen.wrong.length - listed.length)}
        </Button>
      ) : null}
      {all && seen.bad > seen.wrong.length ? (
        <Small>{TEXT.andMoreAfterThese(seen.bad - seen.wrong.length)}</Small>
      ) : null}
    </Card>
  );
}
