/** Saving a packet that went well as a kit: the next deal begins where this one ended. */
import { router } from 'expo-router';
import { useState } from 'react';
import type { PacketView } from '@gatepath/contract';
import { useNewOnShelf } from '../../api/shelf-hooks';
import { Input } from '../../ui/input';
import { ActError, Button, Card } from '../../ui/pieces';
import { Body, Heading } from '../../ui/text';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

export function SaveToShelfCard({ packet }: { packet: PacketView }) {
  const { keep } = useNewOnShelf();
  const [name, setName] = useState<string | null>(null);
  return (
    <Card testID="keep-card">
      <Heading>{TEXT.useAgainForTheNext}</Heading>
      {name === null ? (
        <>
          <Body>{TEXT.saveItsPapersRolesPath}</Body>
          <Button onPress={() => setName(packet.name)} fit testID="keep-kit">
            {TEXT.saveAsAKit}
          </Button>
        </>
      ) : (
        <>
          <Input label={TEXT.nameOfTheKit} value={name} onChangeText={setName} testID="keep-name" />
          <ActError of={keep} />
          <Row gap={8} align="stretch">
            <Button
              kind="main"
              disabled={!name.trim()}
              busy={keep.isPending}
              onPress={() =>
                keep.mutate({ packetId: packet.id, name }, { onSuccess: (kit) => router.push(`/shelf/${kit.id}`) })
              }
              testID="keep-now"
            >
              {TEXT.makeTheKit}
            </Button>
            <Button onPress={() => setName(null)}>{TEXT.cancel}</Button>
          </Row>
        </>
      )}
    </Card>
  );
}
