/** A table of another program brought in: which column is what, what is wrong with which row, and then all or the good ones. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { router, useLocalSearchParams } from 'expo-router';
import { useRef, useState } from 'react';
import { View } from 'react-native';
import type { ImportView } from '@gatepath/contract';
import { TABLE_KINDS, type TableKind } from '@gatepath/core/intake';
import { count } from '@gatepath/core/text';
import { isOneOf } from '@gatepath/core/sure';
import { uploadFile } from '../../api/client';
import { useFilePick } from '../../ui/file-pick';
import { Button, Card, Choice, IconButton, Note, Page, Trouble } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { Columns, withField } from './columns';

const WHAT: Record<TableKind, string> = { deals: 'Deals', people: 'People' };

export function ImportPlace() {
  const asked = useLocalSearchParams<{ what?: string }>().what ?? '';
  const [kind, setKind] = useState<TableKind>(isOneOf(TABLE_KINDS, asked) ? asked : 'people');
  const [file, setFile] = useState<File | null>(null);
  const pick = useFilePick({
    accept: '.csv,.txt,.vcf,text/csv,text/vcard',
    label: 'The file',
    testID: 'import-file',
    onFile: setFile,
  });
  return (
    <Page max={760}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
        <IconButton name="arrow-left" label="Back to the list" onPress={() => router.navigate(`/${kind}`)} />
        <Title>Import a table</Title>
      </View>
      <Card>
        <Choice
          label="What its rows are"
          value={kind}
          options={TABLE_KINDS.map((k) => ({ value: k, label: WHAT[k] }))}
          onChange={setKind}
        />
        <Body>
          {kind === 'people'
            ? 'A CSV file with a row for each person, or cards (vCard). The columns can be in any order.'
            : 'A CSV file with a row for each deal. The columns can be in any order. A list exported here can be imported again unchanged.'}
        </Body>
        {pick.field}
        <Button icon="file-plus" onPress={pick.open} style={{ alignSelf: 'flex-start' }}>
          {file ? `Use a file other than ${file.name}` : 'Choose a file'}
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
  const look = useMutation({
    mutationFn: ({ take, map }: Ask) =>
      uploadFile('importTable', file, {
        params: { tableKind: kind },
        query: { take, ...(map ? { map: map.join(',') } : {}) },
      }),
    onSuccess: (view) => {
      setSeen(view);
      if (view.taken) void client.invalidateQueries({ queryKey: [kind] });
    },
  });
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
      {look.isError ? <Trouble error={look.error} /> : null}
      {look.isPending && !seen ? <Body>The table is being read…</Body> : null}
      {taken ? (
        <Note
          tone="good"
          title={`${count(taken.added, kind === 'people' ? 'person' : 'deal', kind)} imported.${taken.known ? ` ${taken.known} were already there and stay as they are.` : ''}`}
          testID="import-done"
          action={
            <Button kind="quiet" onPress={() => router.navigate(`/${kind}`)} style={{ alignSelf: 'flex-start' }}>
              {kind === 'people' ? 'To the address book' : 'To the deals'}
            </Button>
          }
        />
      ) : null}
      {seen && !taken ? (
        <>
          <Columns seen={seen} onSet={setField} />
          <Rows seen={seen} kind={kind} />
          <Card>
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
              <Button
                kind="main"
                busy={look.isPending}
                disabled={!seen.good || seen.missing.length > 0}
                onPress={() => look.mutate({ take: seen.bad ? 'good' : 'all', map: seen.map })}
                testID="import-take"
              >
                {seen.bad ? `Import the ${count(seen.good, 'good row')}` : `Import all ${count(seen.good, 'row')}`}
              </Button>
              <Button onPress={() => router.navigate(`/${kind}`)}>Cancel</Button>
            </View>
            {seen.bad ? (
              <Small>To import everything or nothing, fix the rows above in the file and choose it again.</Small>
            ) : null}
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
          ? `${count(seen.good, 'row')} can be imported, ${seen.bad} cannot`
          : `All ${count(seen.good, 'row')} can be imported`}
      </Heading>
      {seen.bad ? null : <Body>{`Each becomes one of the ${kind}. Nothing is saved until you confirm.`}</Body>}
      {listed.map((w) => (
        <View key={w.line}>
          <Strong>{`Line ${w.line}`}</Strong>
          <Small>{w.why.join(' ')}</Small>
        </View>
      ))}
      {seen.wrong.length > listed.length ? (
        <Button kind="quiet" onPress={() => setAll(true)} style={{ alignSelf: 'flex-start' }}>
          {`${seen.wrong.length - listed.length} more`}
        </Button>
      ) : null}
      {all && seen.bad > seen.wrong.length ? (
        <Small>{`And ${seen.bad - seen.wrong.length} more after these.`}</Small>
      ) : null}
    </Card>
  );
}
