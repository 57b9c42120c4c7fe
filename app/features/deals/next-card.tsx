/** The two or three acts that would help the deal most. */
import { useState } from 'react';
import { View } from 'react-native';
import type { DealView } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import { usePalette } from '../../ui/hooks';
import { Button, Card, Trouble } from '../../ui/pieces';
import { Heading } from '../../ui/text';
import { ActRow, DoneRow } from './act-row';
import { ACT_WORDS, isDone, useActs } from './use-acts';
import { TEXT } from './words';

const AT_FIRST = 3;

export function NextCard({ deal }: { deal: DealView }) {
  const p = usePalette();
  const [all, setAll] = useState(false);
  const { act, shown, takeBack, busy, error } = useActs();
  const acts = deal.next.map((a) => ({ ...a, dealId: deal.id }));
  const left = acts.filter((a) => !isDone(shown, a));
  if (!left.length && !shown.length) return null;
  const listed = all ? left : left.slice(0, AT_FIRST);
  return (
    <Card testID="next">
      <Heading>{TEXT.whatWouldHelpMost}</Heading>
      {listed.map((a, i) => (
        <View key={a.id} style={{ borderTopWidth: i ? 1 : 0, borderColor: p.rule }}>
          <ActRow
            testID={`next-${a.act.do}`}
            title={a.title}
            detail={a.detail}
            due={a.due ? { words: dueWords(a.due, deal.today), late: a.due < deal.today } : null}
            button={ACT_WORDS[a.act.do]}
            main={i === 0}
            busy={busy && a.act.do === 'prepare'}
            onPress={() => act(a)}
          />
        </View>
      ))}
      {shown.map((d) => (
        <DoneRow key={d.id} done={d} onTakeBack={() => takeBack(d.id)} />
      ))}
      {error ? <Trouble error={error} /> : null}
      {left.length > AT_FIRST ? (
        <Button kind="quiet" onPress={() => setAll(!all)} fit>
          {all ? TEXT.showLess : TEXT.more(left.length - AT_FIRST)}
        </Button>
      ) : null}
    </Card>
  );
}

export const dueWords = (day: string, today: string) =>
  day < today ? TEXT.lateSince(shortDay(day, today)) : day === today ? TEXT.dueToday : TEXT.dueOn(shortDay(day, today));
