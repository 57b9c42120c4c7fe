/** Letters for people who cannot be reached by email: to print, mail, and record. */
import { useState } from 'react';
import { Linking } from 'react-native';
import type { NoticeView } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { count } from '@gatepath/core/text';
import { DayField } from '../../ui/day-field';
import { ActError, Button, Card, Choice } from '../../ui/pieces';
import { Heading, Small } from '../../ui/text';
import type { Acts } from './home-row';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

/**
 * Returns today in the browser's time zone; the server knows the day where the home is, and refuses one in the
 * future.
 */
const today = () => new Date(Date.now() - new Date().getTimezoneOffset() * 60_000).toISOString().slice(0, 10);

export function Letters({ notice, acts: { letters } }: { notice: NoticeView; acts: Acts }) {
  const [day, setDay] = useState(today);
  const [way, setWay] = useState<'post' | 'hand'>('post');
  return (
    <Card testID="letters-card">
      <Heading>{TEXT.lettersFor(count(notice.counts.letters, 'home'))}</Heading>
      <Small>{TEXT.forPeopleWithoutAnEmail}</Small>
      <Row gap={8} align="end" wrap>
        <Button
          icon="download"
          onPress={() => void Linking.openURL(urlOf('noticeLetters', { noticeId: notice.id }))}
          testID="print-letters"
        >
          {TEXT.lettersAsPdf}
        </Button>
        <Choice
          label={TEXT.howTheyWereSent}
          value={way}
          options={[
            { value: 'post', label: TEXT.posted },
            { value: 'hand', label: TEXT.handedOver },
          ]}
          onChange={setWay}
        />
        <DayField label={TEXT.on} value={day} onChange={setDay} testID="letters-day" />
        <Button
          disabled={!day}
          busy={letters.isPending}
          onPress={() => letters.mutate({ rowIds: [], day, way })}
          testID="letters-went"
        >
          {TEXT.allOfThemWereSent}
        </Button>
      </Row>
      <ActError of={letters} />
    </Card>
  );
}
