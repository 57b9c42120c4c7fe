/** Which homes get a notice: tenancies of the list, or a table with a row per household. */
import { useState } from 'react';
import { View } from 'react-native';
import type { HomeTable, NoticeView } from '@gatepath/contract';
import { count } from '@gatepath/core/text';
import { useFilePick } from '../../ui/file-pick';
import { Input } from '../../ui/input';
import { ActError, Button, Card, Note } from '../../ui/pieces';
import { Heading, Small } from '../../ui/text';
import { Columns, withField } from '../imports/columns';
import type { Acts } from './home-row';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export function Homes({ notice, acts }: { notice: NoticeView; acts: Acts }) {
  const [file, setFile] = useState<File | null>(null);
  const [seen, setSeen] = useState<HomeTable | null>(null);
  const { add, table } = acts;
  const look = (f: File, map?: string[]) =>
    table.mutate({ file: f, take: false, ...(map ? { map } : {}) }, { onSuccess: setSeen });
  const pick = useFilePick({
    accept: '.csv,.txt,text/csv',
    label: TEXT.theTableOfHomes,
    testID: 'homes-file',
    onFile: (f) => {
      setFile(f);
      setSeen(null);
      look(f);
    },
  });
  const setField = (at: number, key: string) => {
    if (!seen || !file) return;
    const map = withField(seen.map, at, key);
    setSeen({ ...seen, map });
    look(file, map);
  };
  return (
    <Stack gap={12} grow style={{ minWidth: 0 }}>
      <Card testID="homes-card">
        <Heading>{notice.counts.homes ? TEXT.soFar(count(notice.counts.homes, 'home')) : TEXT.whoGets}</Heading>
        <Small>{TEXT.aCsvFileWithOne}</Small>
        {pick.field}
        <Button icon="file-plus" onPress={pick.open} fit testID="bring-homes">
          {file ? TEXT.aTableOtherThan(file.name) : TEXT.importATable}
        </Button>
        <ActError of={table} />
        <OfList add={add} />
      </Card>
      {seen && !seen.taken && file ? (
        <>
          <Columns seen={seen} onSet={setField} />
          <Button
            kind="main"
            busy={table.isPending}
            disabled={!seen.rows || seen.missing.length > 0}
            onPress={() => table.mutate({ file, take: true, map: seen.map }, { onSuccess: setSeen })}
            testID="take-homes"
          >
            {TEXT.take(count(seen.rows, 'row'))}
          </Button>
        </>
      ) : null}
      {seen?.taken ? (
        <Note tone="good" title={TEXT.importedProblemsAreShown(count(seen.taken, 'row'))} testID="homes-taken" />
      ) : null}
    </Stack>
  );
}

/** Tenancies of the list: all current ones, those of an address or city, or with a tag. */
function OfList({ add }: Pick<Acts, 'add'>) {
  const [search, setSearch] = useState('');
  const [tag, setTag] = useState('');
  const filter = {
    status: 'running' as const,
    archived: false,
    ...(search.trim() ? { search: search.trim() } : {}),
    ...(tag.trim() ? { tag: tag.trim() } : {}),
  };
  return (
    <>
      <Small>{TEXT.orEveryActiveTenancyThose}</Small>
      <Row gap={8} align="stretch" wrap>
        <View style={{ flexGrow: 1, minWidth: 150 }}>
          <Input
            label={TEXT.addressOrTown}
            value={search}
            onChangeText={setSearch}
            maxLength={120}
            testID="homes-search"
          />
        </View>
        <View style={{ flexGrow: 1, minWidth: 110 }}>
          <Input label={TEXT.tag} value={tag} onChangeText={setTag} maxLength={40} testID="homes-tag" />
        </View>
      </Row>
      <Button busy={add.isPending} onPress={() => add.mutate({ dealIds: [], filter })} fit testID="add-homes">
        {search.trim() || tag.trim() ? TEXT.addTheseTenancies : TEXT.addEveryActiveTenancy}
      </Button>
      <ActError of={add} />
    </>
  );
}
