/** Which column of a table is what: guessed by its heading, and set right by hand. */
import { View } from 'react-native';
import type { HomeTable } from '@gatepath/contract';
import { usePalette } from '../../ui/hooks';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, Card, Note } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

/** A table that was looked at. */
type Seen = Pick<HomeTable, 'headings' | 'map' | 'fields' | 'missing' | 'sample'>;

/** The fields of columns with another one for the column at a place: a field is one column's, whichever had it before is left out. */
export const withField = (map: readonly string[], at: number, key: string): string[] =>
  map.map((k, i) => (i === at ? key : k === key ? '' : k));

export function Columns({ seen, onSet }: { seen: Seen; onSet: (at: number, key: string) => void }) {
  const p = usePalette();
  const label = (key: string) => seen.fields.find((f) => f.key === key)?.label ?? 'left out';
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
