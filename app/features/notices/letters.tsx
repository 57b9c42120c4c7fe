/** Letters for those who cannot be written to: to be printed, posted, and noted. */
import { useState } from 'react';
import { Linking, View } from 'react-native';
import type { NoticeView } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { count } from '@gatepath/core/text';
import { DayField } from '../../ui/day-field';
import { Button, Card, Choice, Trouble } from '../../ui/pieces';
import { Heading, Small } from '../../ui/text';
import type { Acts } from './home-row';

/** Today where the browser is; the server knows the day where the home is, and refuses one that has not come. */
const today = () => new Date(Date.now() - new Date().getTimezoneOffset() * 60_000).toISOString().slice(0, 10);

export function Letters({ notice, acts: { letters } }: { notice: NoticeView; acts: Acts }) {
  const [day, setDay] = useState(today);
  const [way, setWay] = useState<'post' | 'hand'>('post');
  return (
    <Card style={{ gap: 10 }} testID="letters-card">
      <Heading>{`Letters for ${count(notice.counts.letters, 'home')}`}</Heading>
      <Small>
        For people without an email address, and in place of messages that came back. Each starts with a page that has a
        slip to sign.
      </Small>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10, alignItems: 'flex-end' }}>
        <Button
          icon="download"
          onPress={() => void Linking.openURL(urlOf('noticeLetters', { noticeId: notice.id }))}
          testID="print-letters"
        >
          Letters as PDF
        </Button>
        <Choice
          label="How they were sent"
          value={way}
          options={[
            { value: 'post', label: 'Posted' },
            { value: 'hand', label: 'Handed over' },
          ]}
          onChange={setWay}
        />
        <DayField label="On" value={day} onChange={setDay} testID="letters-day" />
        <Button
          disabled={!day}
          busy={letters.isPending}
          onPress={() => letters.mutate({ rowIds: [], day, way })}
          testID="letters-went"
        >
          All of them were sent
        </Button>
      </View>
      {letters.isError ? <Trouble error={letters.error} /> : null}
    </Card>
  );
}
