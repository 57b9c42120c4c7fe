/** One chart: its sentence, bars with their numbers, and the data as a table and as CSV. */
import { useState } from 'react';
import { View } from 'react-native';
import { BarChart } from 'react-native-chart-kit/v2';
import type { ListName } from '@gatepath/contract';
import { CsvLink } from '../../ui/csv-link';
import { usePalette } from '../../ui/hooks';
import { Button, Card } from '../../ui/pieces';
import { Body, Heading, Small, Strong } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

export interface Series {
  key: string;
  label: string;
  color: string;
}

interface Props {
  title: string;
  /** What the chart says. */
  sentence: string;
  list: ListName;
  /** A bar, or a group of them, for each; `x` names it. */
  rows: ({ x: string } & Record<string, string | number>)[];
  series: Series[];
  /** Horizontal bars, for long names. */
  lying?: boolean;
  /** Headings and rows of the table. */
  headings: string[];
  table: (string | number)[][];
  /** Shown instead of a chart without data. */
  empty: string;
  nothing: boolean;
  testID: string;
}

const BAR = 44;

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function ChartCard({
  title,
  sentence,
  list,
  rows,
  series,
  lying,
  headings,
  table,
  empty,
  nothing,
  testID,
}: Props) {
  const p = usePalette();
  const [width, setWidth] = useState(0);
  const [numbers, setNumbers] = useState(false);
  const most = Math.max(1, ...rows.flatMap((r) => series.map((s) => Number(r[s.key]))));
  return (
    <Card testID={testID}>
      <Heading>{title}</Heading>
      <Body>{nothing ? empty : sentence}</Body>
      {nothing ? null : (
        <>
          {series.length > 1 ? (
            <Row gap={16} align="stretch" wrap>
              {series.map((s) => (
                <Row key={s.key} gap={8}>
                  <View style={{ width: 14, height: 14, borderRadius: 3, backgroundColor: s.color }} />
                  <Small tone="ink">{s.label}</Small>
                </Row>
              ))}
            </Row>
          ) : null}
          <View onLayout={(e) => setWidth(Math.floor(e.nativeEvent.layout.width))} aria-hidden>
            {width > 0 ? (
              <BarChart
                data={rows}
                xKey="x"
                series={series.map((s) => ({ yKey: s.key, label: s.label, color: s.color }))}
                width={width}
                height={lying ? Math.max(120, rows.length * BAR + 40) : 200}
                orientation={lying ? 'horizontal' : 'vertical'}
                barRadius={3}
                showValuesOnTopOfBars={series.length === 1}
                showHorizontalGridLines={!lying}
                yTickCount={3}
                // Room for the number at the end of the longest bar.
                yDomain={[0, series.length === 1 ? most * 1.15 : most]}
                labelStrategy="show"
                legend={false}
                interaction="none"
                tooltip={false}
                selectionAnimation={false}
                formatYLabel={(v) => String(Math.round(v * 10) / 10)}
                theme={{
                  background: 'transparent',
                  plotBackground: 'transparent',
                  grid: p.rule,
                  axis: p.rule,
                  text: p.ink,
                  mutedText: p.slate,
                  typography: { fontFamily: FONT.text, axisLabelSize: 13 },
                }}
              />
            ) : null}
          </View>
        </>
      )}
      {numbers ? <Numbers headings={headings} table={table} label={title} /> : null}
      <Row align="stretch" wrap>
        <Button kind="quiet" onPress={() => setNumbers(!numbers)} testID={`${testID}-numbers`}>
          {numbers ? TEXT.hideTheNumbers : TEXT.theNumbers}
        </Button>
        <CsvLink list={list} />
      </Row>
    </Card>
  );
}

function Numbers({ headings, table, label }: { headings: string[]; table: (string | number)[][]; label: string }) {
  const p = usePalette();
  const cell = { flex: 1, fontVariant: ['tabular-nums' as const] };
  return (
    <View role="table" aria-label={label}>
      <Row role="row" gap={8} align="stretch" style={{ paddingVertical: 6 }}>
        {headings.map((h, i) => (
          <View key={h} role="columnheader" style={{ flex: i ? 1 : 1.6 }}>
            <Strong style={{ fontSize: 14, textAlign: i ? 'right' : 'left' }}>{h}</Strong>
          </View>
        ))}
      </Row>
      {table.map((row) => (
        <Row
          key={String(row[0])}
          role="row"
          gap={8}
          align="stretch"
          style={{ paddingVertical: 4, borderTopWidth: 1, borderColor: p.rule }}
        >
          {row.map((value, i) => (
            <View key={headings[i]} role="cell" style={{ flex: i ? 1 : 1.6 }}>
              <Small style={{ ...cell, color: p.ink, textAlign: i ? 'right' : 'left' }}>{String(value)}</Small>
            </View>
          ))}
        </Row>
      ))}
    </View>
  );
}
