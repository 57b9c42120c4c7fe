/** A household's row: what its notice says, its progress, and, opened, everything that can be done for it. */
import { router } from 'expo-router';
import { useState, type ReactElement } from 'react';
import { Linking, Pressable, View } from 'react-native';
import type { NoticeRow, NoticeView } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { shortDay } from '@gatepath/core/calendar';
import { factWords, type FactDef, type FactValue } from '@gatepath/core/deal';
import { firstName, listWords } from '@gatepath/core/text';
import { isOfPaper } from '@gatepath/core/writing';
import type { useNoticeActs } from '../../api/notice-hooks';
import { usePalette } from '../../ui/hooks';
import { ActError, Button } from '../../ui/pieces';
import { Body, Small, Strong } from '../../ui/text';
import { webProps } from '../../ui/web';
import { HomeChooser } from './home-chooser';
import { SaidFields, useSaid } from './said-fields';
import { STATE_WORDS, StepMark, type StepName } from './step-mark';
import { TEXT } from './words';
import { Actions, Row, Stack } from '../../ui/layout';

export type Acts = ReturnType<typeof useNoticeActs>;

/** Returns the steps of a notice: one that is only delivered is not signed. */
export const stepsOf = (notice: Pick<NoticeView, 'signed'>): { name: StepName; label: string }[] => [
  { name: 'worked', label: 'prepared' },
  { name: 'gone', label: 'sent' },
  { name: 'arrived', label: 'arrived' },
  { name: 'opened', label: 'opened' },
  ...(notice.signed ? [{ name: 'done' as const, label: 'signed' }] : []),
];

export const WIDTH = { home: 2.2, tenants: 1.7, value: 112, from: 92, step: 62, says: 2.4 };

/** Returns the values that the papers ask for in the form of facts, so that they are shown in the same fields. */
export const asFacts = (notice: Pick<NoticeView, 'tags'>): FactDef[] =>
  notice.tags.flatMap((t) => (t.type === 'names' ? [] : [{ ...t, type: t.type, kinds: [] }]));

/** Returns the tags to show as columns: those that rows differ in, or that have no value yet, as many as fit. */
export function columnsOf(notice: NoticeView, rows: readonly NoticeRow[]): FactDef[] {
  const said = new Set(rows.flatMap((r) => Object.keys(r.values)));
  return asFacts(notice)
    .filter((t) => said.has(t.key))
    .slice(0, 2);
}

export const valueWords = (def: FactDef, value: FactValue | undefined): string =>
  value === undefined ? '' : def.type === 'day' ? shortDay(String(value)) : factWords(def, value);

/** As wide as the bar of a row that wants somebody. */
const BAR = 5;

interface Props {
  row: NoticeRow;
  notice: NoticeView;
  columns: readonly FactDef[];
  acts: Acts;
  wide: boolean;
}

export function HomeRow(props: Props) {
  const { row, notice, columns, acts, wide } = props;
  const p = usePalette();
  const [open, setOpen] = useState(false);
  const bad = row.state === 'wrong' || row.steps.arrived === 'failed';
  const out = row.state === 'left_out';
  const tenants = listWords(row.tenants) || TEXT.nobodyYet;
  // Problems are shown in full below, once the row is open.
  const says =
    open && row.state === 'wrong' ? null : (
      <Small style={bad ? { color: p.wine, fontWeight: '700' } : null} numberOfLines={open ? undefined : 3}>
        {row.says}
      </Small>
    );
  return (
    <View
      testID="home-row"
      style={{
        borderTopWidth: 1,
        borderTopColor: p.rule,
        // A bar and not a wash: grey words must stay readable on it.
        borderLeftWidth: bad ? BAR : 0,
        borderLeftColor: p.wine,
        opacity: out ? 0.6 : 1,
      }}
    >
      <Pressable
        role="button"
        onPress={() => setOpen(!open)}
        aria-label={[
          `${row.home}, ${tenants}`,
          ...columns.map((c) => `${c.label}: ${valueWords(c, row.values[c.key]) || TEXT.notSaid}`),
          ...stepsOf(notice)
            .filter((x) => row.steps[x.name] !== 'none')
            .map((x) => `${x.label}: ${STATE_WORDS[row.steps[x.name]]}`),
          row.says,
        ]
          .filter(Boolean)
          .join('. ')}
        {...webProps({ 'aria-expanded': open })}
        style={{
          flexDirection: wide ? 'row' : 'column',
          alignItems: wide ? 'center' : 'stretch',
          gap: wide ? 10 : 4,
          minHeight: 44,
          paddingRight: 14,
          // The bar takes its width from here: columns stay aligned.
          paddingLeft: bad ? 14 - BAR : 14,
          paddingVertical: 9,
        }}
      >
        {wide ? <Cells {...props} says={says} /> : <Lines {...props} says={says} />}
      </Pressable>
      {open ? <Opened row={row} notice={notice} acts={acts} /> : null}
    </View>
  );
}

type Part = Props & { says: ReactElement | null };

/** A row of the table on a wide screen. */
function Cells({ row, notice, columns, says }: Part) {
  return (
    <>
      <View style={{ flex: WIDTH.home }}>
        <Strong numberOfLines={1}>{row.home}</Strong>
      </View>
      <View style={{ flex: WIDTH.tenants }}>
        <Small numberOfLines={1}>{listWords(row.tenants) || TEXT.nobodyYet}</Small>
      </View>
      {columns.map((c) => (
        <View key={c.key} style={{ width: WIDTH.value }}>
          <Small numberOfLines={1}>{valueWords(c, row.values[c.key]) || '–'}</Small>
        </View>
      ))}
      <View style={{ width: WIDTH.from }}>
        <Small>{row.countsFrom ? shortDay(row.countsFrom) : '–'}</Small>
      </View>
      {stepsOf(notice).map((s) => (
        <View key={s.name} style={{ width: WIDTH.step, alignItems: 'center' }}>
          <StepMark state={row.steps[s.name]} label={s.label} />
        </View>
      ))}
      <View style={{ flex: WIDTH.says }}>{says}</View>
    </>
  );
}

/** The same as lines, on a phone. */
function Lines({ row, notice, columns, says }: Part) {
  const told = [
    listWords(row.tenants.map(firstName)) || TEXT.nobodyYet,
    ...columns.map((c) => valueWords(c, row.values[c.key])),
    row.countsFrom ? TEXT.countsFromDay(shortDay(row.countsFrom)) : '',
  ];
  return (
    <Stack gap={4}>
      <Row gap={8}>
        <Strong grow>{row.home}</Strong>
        {stepsOf(notice).map((s) => (
          <StepMark key={s.name} state={row.steps[s.name]} label={s.label} />
        ))}
      </Row>
      <Small>{told.filter(Boolean).join(', ')}</Small>
      {says}
    </Stack>
  );
}

/** What can be done for one household. */
// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function Opened({ row, notice, acts }: { row: NoticeRow; notice: NoticeView; acts: Acts }) {
  const on = useSaid();
  const { setRow } = acts;
  const open = row.state !== 'gone' && row.state !== 'going';
  const params = { noticeId: notice.id, rowId: row.id };
  // Facts of the tenancy are asked for only if it lacks them.
  const asked = asFacts(notice).filter(
    (def) => isOfPaper(def.key) || def.key in row.values || row.problems.some((text) => text.startsWith(def.label)),
  );
  return (
    <Stack testID="home-open" gap={8} style={{ paddingHorizontal: 14, paddingBottom: 14, maxWidth: 720 }}>
      {row.problems.map((text) => (
        <Body key={text} tone="stop">
          {text}
        </Body>
      ))}
      {row.notes.map((text) => (
        <Small key={text}>{text}</Small>
      ))}
      {open && row.state !== 'left_out' && !row.dealId ? (
        <HomeChooser home={row.home} onChoose={(dealId) => setRow.mutate({ rowId: row.id, dealId })} />
      ) : null}
      {open && row.state !== 'left_out' ? <SaidFields facts={asked} values={row.values} on={on} /> : null}
      <ActError of={setRow} />
      <Actions>
        {open && row.state !== 'left_out' ? (
          <Button
            disabled={!on.changed || !on.fits}
            busy={setRow.isPending}
            onPress={() => setRow.mutate({ rowId: row.id, values: on.said }, { onSuccess: on.clear })}
            testID="mend-row"
          >
            {TEXT.saveForThisHome}
          </Button>
        ) : null}
        {row.dealId ? (
          <Button
            kind="quiet"
            icon="eye"
            onPress={() => void Linking.openURL(urlOf('noticePaper', params))}
            testID="see-paper"
          >
            {row.packetId ? TEXT.seeWhatWent : TEXT.seeWhatWillGo}
          </Button>
        ) : null}
        {row.packetId ? (
          <Button kind="quiet" onPress={() => router.push(`/packets/${row.packetId}`)}>
            {TEXT.itsPacketAndProof}
          </Button>
        ) : null}
        {row.dealId ? (
          <Button kind="quiet" onPress={() => router.push(`/deals/${row.dealId}`)}>
            {TEXT.theTenancy}
          </Button>
        ) : null}
        {open ? (
          <Button
            kind="quiet"
            busy={setRow.isPending}
            onPress={() => setRow.mutate({ rowId: row.id, leftOut: row.state !== 'left_out' })}
            testID="leave-out"
          >
            {row.state === 'left_out' ? TEXT.includeItAgain : TEXT.dismiss}
          </Button>
        ) : null}
      </Actions>
    </Stack>
  );
}
