import { useState } from 'react';
import { Input } from '../../ui/input';
import type { SigningView } from '@gatepath/contract';
import { Button, Page, Trouble } from '../../ui/pieces';
import { Body, Title } from '../../ui/text';
import { WhoIs } from './ceremony';
import type { Signing } from './use-signing';

export function DeclineStep({ signing, view, onBack }: { signing: Signing; view: SigningView; onBack: () => void }) {
  const [reason, setReason] = useState('');
  return (
    <Page max={560}>
      <WhoIs view={view} />
      <Title>Decline to sign</Title>
      <Body>{`This ends “${view.packetName}” for everyone. ${view.firmName} will read what you write here.`}</Body>
      <Input
        label="Why do you decline?"
        value={reason}
        onChangeText={setReason}
        multiline
        numberOfLines={4}
        testID="reason"
      />
      {signing.decline.isError ? <Trouble error={signing.decline.error} /> : null}
      <Button
        large
        kind="stop"
        busy={signing.decline.isPending}
        onPress={() => signing.decline.mutate(reason, { onSuccess: onBack })}
        testID="decline-now"
      >
        Decline
      </Button>
      <Button large onPress={onBack}>
        Go back
      </Button>
    </Page>
  );
}
