/** The fields of a table's columns: guessed by their headings, and corrected by hand. */
import { View } from 'react-native';
import type { HomeTable } from '@gatepath/contract';
import { usePalette } from '../../ui/hooks';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, Card, Note } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

/** A table that was previewed. */
type Seen = Pick<HomeTable, 'headings' | 'map' | 'fields' | 'missing' | 'sample'>;

/**
 * Returns the fields of columns with another one at a position: a field belongs to one column, so the one that had it
 * before loses it.
 */
export const withField = (map: readonly string[], at: number, key: string): string[] =>
  map.map((k, i) => (i === at ? key : k === key ? '' : k));

export function Columns({ seen, onSet }: { seen: Seen; onSet: (at: number, key: string) => void }) {
  const p = usePalette();
  const label = (key: string) => seen.fields.find((f) => f.key === key)?.label ?? TEXT.leftOut;
  return (
    <Card testID="import-columns">
      <Heading>{TEXT.whatEachColumn}</Heading>
      {seen.missing.length ? <Note tone="warn" title={TEXT.noColumnIsSet(seen.missing.join(', '))} /> : null}
      {seen.headings.map((heading, i) => (
        <Row key={`${i} ${heading}`} gap={8} style={{ borderTopWidth: i ? 1 : 0, borderColor: p.rule }}>
          <View style={{ flex: 1, paddingVertical: 8 }}>
            <Strong numberOfLines={1}>{heading || TEXT.column(i + 1)}</Strong>
            <Small numberOfLines={1}>
              {seen.sample
                .map((r) => r[i])
                .filter(Boolean)
                .join(', ') || TEXT.nothingInTheFirstRows}
            </Small>
          </View>
          <DropMenu
            anchor={(open) => (
              <Button
                kind="quiet"
                onPress={open}
                label={TEXT.isChange(heading || TEXT.column(i + 1), label(seen.map[i] ?? ''))}
              >
                {label(seen.map[i] ?? '')}
              </Button>
            )}
          >
            <MenuItem title={TEXT.leftOut} onPress={() => onSet(i, '')} />
            {seen.fields.map((f) => (
              <MenuItem key={f.key} title={f.label} onPress={() => onSet(i, f.key)} />
            ))}
          </DropMenu>
        </Row>
      ))}
    </Card>
  );
}
