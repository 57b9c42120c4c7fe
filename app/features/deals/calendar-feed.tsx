/**
 * A calendar's secret address: made, copied, changed, ended. Whoever has it sees the days, so it is changed when
 * others learned it.
 */
import { useState } from 'react';
import { Linking } from 'react-native';
import { urlOf } from '@gatepath/contract';
import { useFeed } from '../../api/deal-hooks';
import { Button, Trouble } from '../../ui/pieces';
import { Body, Small } from '../../ui/text';
import { TEXT } from './words';
import { Actions, Stack } from '../../ui/layout';

/** @param dealId  the deal whose days it contains; null for the member's own */
export function CalendarFeed({ dealId }: { dealId: string | null }) {
  const { feed, renew, end } = useFeed(dealId);
  const [copied, setCopied] = useState(false);
  const url = feed.data?.url ?? null;
  const copy = () =>
    url &&
    void navigator.clipboard
      .writeText(url)
      .then(() => setCopied(true))
      .catch(() => setCopied(false));
  const error = feed.error ?? renew.error ?? end.error;
  return (
    <Stack gap={8} testID="calendar-feed">
      <Small>{dealId ? TEXT.seeThisDealsDates : TEXT.seeYourDealsDates}</Small>
      {url ? (
        <>
          <Body style={{ fontSize: 14, wordBreak: 'break-all' } as object} testID="feed-url">
            {url}
          </Body>
          <Small>{TEXT.anyoneWithThisAddressCan}</Small>
        </>
      ) : null}
      {error ? <Trouble error={error} /> : null}
      <Actions>
        {url ? (
          <>
            <Button icon="copy" onPress={copy}>
              {copied ? TEXT.copied : TEXT.copyTheAddress}
            </Button>
            <Button
              busy={renew.isPending}
              onPress={() => renew.mutate(undefined, { onSuccess: () => setCopied(false) })}
              testID="renew-feed"
            >
              {TEXT.changeIt}
            </Button>
            <Button kind="quiet" busy={end.isPending} onPress={() => end.mutate()}>
              {TEXT.endIt}
            </Button>
          </>
        ) : (
          <Button busy={renew.isPending} onPress={() => renew.mutate()} testID="make-feed">
            {TEXT.makeAnAddress}
          </Button>
        )}
        {dealId ? (
          <Button icon="download" onPress={() => void Linking.openURL(urlOf('dealCalendar', { dealId }))}>
            {TEXT.asAFile}
          </Button>
        ) : null}
      </Actions>
    </Stack>
  );
}
