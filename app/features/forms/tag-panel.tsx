/** Tags to insert into a text, found by their labels. */
import { useState } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import { TAG_SOURCES, type TagDef } from '@gatepath/core/writing';
import { byKeys, usePalette } from '../../ui/hooks';
import { Button, Card } from '../../ui/pieces';
import { SearchBar } from '../../ui/search-bar';
import { Body, Small, Strong } from '../../ui/text';
import { useAbout } from './about';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

const FROM_WORDS: Record<TagDef['from'], string> = {
  deal: TEXT.theDeal,
  people: TEXT.people,
  firm: TEXT.theFirm,
  paper: TEXT.thisPaperOnlyFilledIn,
};
const TYPE_WORDS: Record<TagDef['type'], string> = {
  flag: TEXT.yesOrNo,
  number: 'number',
  money: 'sum',
  year: 'year',
  choice: TEXT.oneOfSeveral,
  text: 'words',
  day: 'day',
  names: 'names',
};

export function TagPanel({ onPick, onClose }: { onPick: (key: string) => void; onClose: () => void }) {
  const { tags, roles } = useAbout();
  const [search, setSearch] = useState('');
  const sides = new Set<string>(roles.map((r) => r.side));
  const found = tags.filter(
    (t) =>
      t.label.toLowerCase().includes(search.trim().toLowerCase()) &&
      // First those of the people the form is about; the others are found by search.
      (search.trim() !== '' || t.from !== 'people' || !sides.size || sides.has(t.key.split('.')[1] ?? '')),
  );
  return (
    <Card style={{ padding: 12 }} testID="tag-panel">
      <Row gap={8}>
        <SearchBar
          placeholder={TEXT.findATag}
          value={search}
          onChangeText={setSearch}
          testID="find-tag"
          style={{ flex: 1 }}
        />
        <Button kind="quiet" onPress={onClose}>
          {TEXT.close}
        </Button>
      </Row>
      <ScrollView style={{ maxHeight: 260 }} {...byKeys(TEXT.tags)}>
        {TAG_SOURCES.map((from) => {
          const some = found.filter((t) => t.from === from);
          return some.length ? (
            <View key={from}>
              <Small>{FROM_WORDS[from]}</Small>
              {some.map((t) => (
                <TagRow key={t.key} tag={t} onPick={onPick} />
              ))}
            </View>
          ) : null;
        })}
        {found.length ? null : <Body>{TEXT.noTagHasThatName}</Body>}
      </ScrollView>
    </Card>
  );
}

function TagRow({ tag: t, onPick }: { tag: TagDef; onPick: (key: string) => void }) {
  const p = usePalette();
  return (
    <Pressable
      role="button"
      onPress={() => onPick(t.key)}
      testID={`tag-${t.key}`}
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 10,
        minHeight: 44,
        borderBottomWidth: 1,
        borderColor: p.rule,
      }}
    >
      <Strong grow>{t.label}</Strong>
      <Small>{TYPE_WORDS[t.type]}</Small>
    </Pressable>
  );
}
