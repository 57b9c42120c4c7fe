/** Everything that happened in the deal, newest first: all of it, or by person, or by paper. */
import { useState } from 'react';
import { View } from 'react-native';
import type { DealView } from '@gatepath/contract';
import { useDealActivity } from '../../api/deal-hooks';
import { itemsOf } from '../../ui/list-page';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, Card, Trouble } from '../../ui/pieces';
import { Body, Heading, Small } from '../../ui/text';
import { when } from '../../ui/dates';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

interface About {
  words: string;
  partyId?: string;
  documentId?: string;
}
const ALL: About = { words: TEXT.everything };

export function ActivityCard({ deal }: { deal: DealView }) {
  const [about, setAbout] = useState<About>(ALL);
  const { partyId, documentId } = about;
  const activity = useDealActivity(deal.id, { ...(partyId ? { partyId } : {}), ...(documentId ? { documentId } : {}) });
  const choices: About[] = [
    ALL,
    ...deal.parties.map((x) => ({ words: x.name, partyId: x.id })),
    ...deal.documents.filter((d) => !d.replacedBy).map((d) => ({ words: d.name, documentId: d.id })),
  ];
  return (
    <Card testID="activity">
      <Row gap={8}>
        <Stack grow>
          <Heading>{TEXT.whatHappened}</Heading>
        </Stack>
        <DropMenu
          anchor={(open) => (
            <Button kind="quiet" icon="chevron-down" onPress={open} label={TEXT.shownChange(about.words)}>
              {about.words.length > 18 ? `${about.words.slice(0, 17)}…` : about.words}
            </Button>
          )}
        >
          {choices.map((c) => (
            <MenuItem key={c.partyId ?? c.documentId ?? ''} title={c.words} onPress={() => setAbout(c)} />
          ))}
        </DropMenu>
      </Row>
      {itemsOf(activity).map((line) => (
        <View key={line.id} testID="activity-line">
          <Body>{line.sentence}</Body>
          <Small>{[when(line.at, deal.timeZone), line.packetName].filter(Boolean).join(' · ')}</Small>
        </View>
      ))}
      {activity.isSuccess && !itemsOf(activity).length ? <Small>{TEXT.nothingYet}</Small> : null}
      {activity.isError ? <Trouble error={activity.error} retry={() => void activity.refetch()} /> : null}
      {activity.hasNextPage ? (
        <Button kind="quiet" busy={activity.isFetchingNextPage} onPress={() => void activity.fetchNextPage()}>
          {TEXT.earlier}
        </Button>
      ) : null}
    </Card>
  );
}
