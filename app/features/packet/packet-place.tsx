import { Redirect, useLocalSearchParams } from 'expo-router';
import { usePacket, useSession } from '../../api/hooks';
import { DeskScreen } from '../desk/desk';
import { PacketScreen } from './packet-screen';
import { NotReady, isReady } from '../../ui/not-ready';

export function PacketPlace() {
  const { packetId } = useLocalSearchParams<{ packetId: string }>();
  const session = useSession();
  const packet = usePacket(session.data?.member ? packetId : '');
  if (!isReady(session)) return <NotReady query={session} what="Gate Path" />;
  if (!session.data.member) return <Redirect href="/sign-in" />;
  if (!isReady(packet)) return <NotReady query={packet} what="the packet" />;
  return packet.data.sent ? (
    <PacketScreen packet={packet.data} sent={packet.data.sent} />
  ) : (
    <DeskScreen key={packet.data.id} packet={packet.data} />
  );
}
