/** What can be changed of a kit for one packet, and what is locked. */
import { useState, type ReactNode } from 'react';
import type { KitTrial } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import type { Lock } from '@gatepath/core/shelf';
import { firstName } from '@gatepath/core/text';
import { useFirm } from '../../api/hooks';
import type { KitChanges } from '../../api/shelf-hooks';
import { DayField, LateDay } from '../../ui/day-field';
import { usePalette } from '../../ui/hooks';
import { HourMenu, hourWords } from '../../ui/hour-menu';
import { Icon } from '../../ui/icon';
import { LateInput } from '../../ui/late-input';
import { Button, Card } from '../../ui/pieces';
import { Body, Small } from '../../ui/text';
import { Told } from '../desk/told';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

/** Returns a day and time in words: "Thu, Dec 3 at 9:00". */
export const laterWords = ({ day, hour }: NonNullable<KitTrial['later']>, today: string) =>
  TEXT.at(shortDay(day, today), hourWords(hour));

/** What is not locked, one line each. */
// eslint-disable-next-line max-lines-per-function -- one line of the card after another
export function Settings({
  trial: t,
  today,
  onChange,
}: {
  trial: KitTrial;
  today: string;
  onChange: (c: KitChanges) => void;
}) {
  const [open, setOpen] = useState<string | null>(null);
  const members = useFirm().data?.members ?? [];
  const by = (lock: Lock) => t.locks.find((l) => l.lock === lock)?.by;
  const line = (label: string, words: string, lock: Lock, field: ReactNode) => (
    <Setting
      key={label}
      label={label}
      words={words}
      lockedBy={by(lock)}
      open={open === label}
      onOpen={() => setOpen(open === label ? null : label)}
    >
      {field}
    </Setting>
  );
  return (
    <Card style={{ gap: 0, paddingVertical: 6 }}>
      {line(
        TEXT.name,
        t.name,
        'name',
        <LateInput label={TEXT.name} value={t.name} onSave={(name) => onChange({ name })} testID="kit-name" />,
      )}
      {line(
        TEXT.when,
        t.later ? TEXT.goes(laterWords(t.later, today)) : TEXT.sentWhenYouSend,
        'schedule',
        <When trial={t} onChange={(later) => onChange({ later })} />,
      )}
      {line(
        TEXT.lastDay,
        t.lastDay ? shortDay(t.lastDay, today) : 'none',
        'schedule',
        <DayField
          label={TEXT.lastDayToSign}
          value={t.lastDay ?? ''}
          min={today}
          onChange={(day) => onChange({ lastDay: day || null })}
        />,
      )}
      {line(TEXT.nudges, t.nudges ? 'automatic' : 'none', 'schedule', <Small>{TEXT.nudgesAreSet}</Small>)}
      {line(
        TEXT.subject,
        t.says.subject,
        'message',
        <LateInput
          label={TEXT.subject}
          value={t.subject}
          onSave={(subject) => onChange({ subject })}
          testID="kit-subject"
        />,
      )}
      {line(
        TEXT.message,
        t.says.message || 'none',
        'message',
        <LateInput
          label={TEXT.message}
          multiline
          value={t.message}
          onSave={(message) => onChange({ message })}
          testID="kit-message"
        />,
      )}
      {members.length > 1
        ? line(
            TEXT.whoIsNotified,
            ['you', ...t.reports.flatMap((id) => members.find((m) => m.id === id)?.name ?? [])].join(', '),
            'reports',
            <Told value={t.reports} onChange={(reports) => onChange({ reports })} />,
          )
        : null}
    </Card>
  );
}

/** A day and hour for this packet, or sending it at once. */
function When({
  trial: { later, timeZone },
  onChange,
}: {
  trial: KitTrial;
  onChange: (later: KitTrial['later']) => void;
}) {
  const { day, hour } = later ?? { day: '', hour: 9 };
  return (
    <Stack gap={8}>
      <Row gap={8} align="end" wrap>
        <LateDay
          label={TEXT.day}
          value={day}
          onSave={(to) => onChange(to ? { day: to, hour } : null)}
          testID="kit-later-day"
        />
        {later ? (
          <HourMenu value={hour} onChange={(to) => onChange({ day, hour: to })} testID="kit-later-hour" />
        ) : null}
        {later ? <Button onPress={() => onChange(null)}>{TEXT.atOnce}</Button> : null}
      </Row>
      <Small>{TEXT.inTheDealsTime(timeZone)}</Small>
    </Stack>
  );
}

function Setting({
  label,
  words,
  lockedBy,
  open,
  onOpen,
  children,
}: {
  label: string;
  words: string;
  lockedBy: string | undefined;
  open: boolean;
  onOpen: () => void;
  children: ReactNode;
}) {
  const p = usePalette();
  return (
    <Stack gap={8} style={{ borderTopWidth: label === 'Name' ? 0 : 1, borderColor: p.rule, paddingVertical: 4 }}>
      <Row gap={8} style={{ minHeight: 46 }}>
        <Small style={{ width: 70 }}>{label}</Small>
        <Body grow numberOfLines={2}>
          {words}
        </Body>
        {lockedBy ? (
          <Row role="img" aria-label={TEXT.lockedBy(lockedBy)} gap={4}>
            <Icon name="lock" color={p.slate} size={18} />
            <Small>{firstName(lockedBy)}</Small>
          </Row>
        ) : (
          <Button
            kind="quiet"
            onPress={onOpen}
            label={TEXT.changeSetting(label.toLowerCase())}
            testID={`change-${label}`}
          >
            {open ? TEXT.done : TEXT.change}
          </Button>
        )}
      </Row>
      {open ? children : null}
    </Stack>
  );
}
