import { Redirect, useLocalSearchParams } from 'expo-router';
import { usePacket, useSession } from '../../api/hooks';
import { DeskScreen } from '../desk/desk';
import { PacketScreen } from './packet-screen';
import { useWide } from '../../ui/hooks';
import { NotReady, isReady } from '../../ui/not-ready';
import { CommandLine } from '../frame/command-line';
import { Places } from '../frame/frame';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

export function PacketPlace() {
  const { packetId } = useLocalSearchParams<{ packetId: string }>();
  const session = useSession();
  const wide = useWide();
  const packet = usePacket(session.data?.member ? packetId : '');
  if (!isReady(session)) return <NotReady query={session} what={TEXT.gatePath} />;
  if (!session.data.member) return <Redirect href="/sign-in" />;
  if (!isReady(packet)) return <NotReady query={packet} what={TEXT.thePacket} />;
  return (
    <Stack grow>
      {packet.data.sent ? (
        <>
          {wide ? <Places /> : null}
          <PacketScreen packet={packet.data} sent={packet.data.sent} />
        </>
      ) : (
        <DeskScreen key={packet.data.id} packet={packet.data} />
      )}
      <CommandLine />
    </Stack>
  );
}
