/** One value of a contract: what it is, where it is stated, and its correction. */
import { useState } from 'react';
import type { Accepted, Chosen, FieldKey, Source, StatedDay } from '@gatepath/core/abstract';
import { datesOf, isStatedDay, readingOf, valueOf } from '@gatepath/core/abstract';
import { countWords, shortDay } from '@gatepath/core/calendar';
import {
  DATE_WORDS,
  dateOfKey,
  FACTS,
  factWords,
  type FactDef,
  type FactValue,
  type KeyDate,
} from '@gatepath/core/deal';
import { listWords } from '@gatepath/core/text';
import { DayField } from '../../ui/day-field';
import { Input } from '../../ui/input';
import { Row, Ruled, Stack } from '../../ui/layout';
import { Button, Choice } from '../../ui/pieces';
import { Small, Strong } from '../../ui/text';
import { FactField } from '../facts/fact-field';
import { fieldsOf, type ReadContract } from './read-contract';
import { Sources, sourceWords } from './sources';
import { TEXT } from './words';

interface Props {
  view: ReadContract;
  field: FieldKey;
  accepted: Accepted;
  onChange: (chosen: Chosen) => void;
}

const defOf = (field: FieldKey): FactDef | null => FACTS.find((f) => `fact.${f.key}` === field) ?? null;

/** Returns what a field is called. */
function labelOf(field: FieldKey): string {
  if (field === 'address') return TEXT.address;
  if (field === 'city') return TEXT.city;
  const date = dateOfKey(field);
  return date ? DATE_WORDS[date] : (defOf(field)?.label ?? field);
}

/** Returns a value in words: "$412,000", "Fri, Jan 15, 2027", "10 days after acceptance". */
function wordsOf(field: FieldKey, value: FactValue | StatedDay): string {
  if (isStatedDay(value))
    return 'day' in value
      ? shortDay(value.day, '')
      : `${countWords(value.count)} ${DATE_WORDS[value.from].toLowerCase()}`;
  const def = defOf(field);
  if (dateOfKey(field)) return shortDay(String(value), '');
  return def ? factWords(def, value) : String(value);
}

export function ValueRow({ view, field, accepted, onChange }: Props) {
  const [editing, setEditing] = useState(false);
  const [seen, setSeen] = useState(false);
  const read = readingOf(fieldsOf(view), field);
  const readings = read?.readings ?? [];
  const chosen = accepted.fields[field] ?? null;
  const unread = view.abstract.unread.flatMap((u) => (u.field === field && !readings.length ? [u.source] : []));
  const stated =
    chosen && 'reading' in chosen ? (readings[chosen.reading]?.sources ?? []) : readings.flatMap((r) => r.sources);
  // A value written by hand is shown, to be typed by whoever reads it.
  const sources = stated.length ? stated : unread;
  const label = labelOf(field);
  const open = readings.length > 0 && !read?.certain;
  return (
    <Ruled gap={4} testID={`value-${field}`}>
      <Row gap={8} justify="between">
        <Small>{label}</Small>
        <Row>
          {sources.length ? (
            <Button
              kind="quiet"
              label={seen ? TEXT.hideWhere(label) : TEXT.seeWhere(label)}
              onPress={() => setSeen(!seen)}
              testID={`see-${field}`}
            >
              {seen ? TEXT.hideIt : TEXT.seeIt}
            </Button>
          ) : null}
          <Button
            kind="quiet"
            label={TEXT.changeOf(label)}
            onPress={() => setEditing(!editing)}
            testID={`change-${field}`}
          >
            {editing ? TEXT.done : TEXT.change}
          </Button>
        </Row>
      </Row>
      {open && !(chosen && 'typed' in chosen) ? (
        <Readings view={view} field={field} label={label} chosen={chosen} onChange={onChange} />
      ) : (
        <Value view={view} field={field} accepted={accepted} />
      )}
      {editing ? <Editor view={view} field={field} label={label} accepted={accepted} onChange={onChange} /> : null}
      {chosen && 'reading' in chosen && sources.length ? <Small>{sourceWords(sources)}</Small> : null}
      {seen ? <Sources view={view} sources={sources} /> : null}
    </Ruled>
  );
}

/** The accepted value, or that there is none. */
function Value({ view, field, accepted }: Pick<Props, 'view' | 'field' | 'accepted'>) {
  const fields = fieldsOf(view);
  const value = valueOf(fields, accepted, field);
  const date = dateOfKey(field);
  if (value === null) return <Small>{accepted.fields[field] === undefined ? TEXT.notFound : TEXT.leftOut}</Small>;
  if (date && isStatedDay(value) && 'count' in value)
    return <CountedDay view={view} date={date} value={value} accepted={accepted} />;
  return <Strong>{wordsOf(field, value)}</Strong>;
}

/** A counted day with its reason, or what it still needs. */
function CountedDay({
  view,
  date,
  value,
  accepted,
}: {
  view: ReadContract;
  date: KeyDate;
  value: StatedDay & { from: KeyDate };
  accepted: Accepted;
}) {
  const worked = datesOf(fieldsOf(view), accepted, view.holidays)[date];
  return worked ? (
    <Stack>
      <Strong>{shortDay(worked.day, '')}</Strong>
      {worked.why ? <Small>{worked.why}</Small> : null}
    </Stack>
  ) : (
    <Stack>
      <Strong>{wordsOf(`date.${date}`, value)}</Strong>
      <Small tone="warn">{TEXT.waitsFor(DATE_WORDS[value.from])}</Small>
    </Stack>
  );
}

/** What a field may be where the contract is not clear: one choice each, and none. */
function Readings({
  view,
  field,
  label,
  chosen,
  onChange,
}: Pick<Props, 'view' | 'field' | 'onChange'> & { label: string; chosen: Chosen }) {
  const readings = readingOf(fieldsOf(view), field)?.readings ?? [];
  const pages = [...new Set(readings.flatMap((r) => r.sources.slice(0, 1).map((s: Source) => String(s.page))))];
  const contradict = readings.filter((r) => r.clear).length > 1;
  const words = contradict && pages.length > 1 ? TEXT.contradict(TEXT.pages(listWords(pages))) : TEXT.notCertain;
  return (
    <Stack gap={4}>
      <Choice
        label={label}
        value={chosen && 'reading' in chosen ? String(chosen.reading) : ''}
        wrap
        options={[
          ...readings.slice(0, MOST).map((r, i) => ({ value: String(i), label: wordsOf(field, r.value) })),
          { value: '', label: TEXT.leaveOut },
        ]}
        onChange={(v) => onChange(v === '' ? null : { reading: Number(v) })}
      />
      <Small tone="warn">{words}</Small>
    </Stack>
  );
}
/** Maximum number of readings to choose from. */
const MOST = 4;

/** Typing a value. */
function Editor({
  view,
  field,
  label,
  accepted,
  onChange,
}: Pick<Props, 'view' | 'field' | 'accepted' | 'onChange'> & { label: string }) {
  const fields = fieldsOf(view);
  const value = valueOf(fields, accepted, field);
  const date = dateOfKey(field);
  const type = (typed: FactValue | null) => onChange(typed === null || typed === '' ? null : { typed });
  if (date) {
    const day = datesOf(fields, accepted, view.holidays)[date]?.day ?? '';
    return <DayField label={label} value={day} onChange={type} testID={`typed-${field}`} />;
  }
  const def = defOf(field);
  const current = value === null || isStatedDay(value) ? null : value;
  if (def) return <FactField def={def} value={current} onChange={(w) => type('value' in w ? w.value : null)} />;
  return (
    <Input
      label={label}
      value={current === null ? '' : String(current)}
      onChangeText={type}
      maxLength={field === 'address' ? 160 : 120}
      testID={`typed-${field}`}
    />
  );
}
