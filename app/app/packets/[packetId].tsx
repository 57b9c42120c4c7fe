import { Redirect, useLocalSearchParams } from 'expo-router';
import { usePacket, useSession } from '../../api/hooks';
import { DeskScreen } from '../../features/desk/desk';
import { PacketScreen } from '../../features/packet/packet-screen';
import { Loading, Page, Trouble } from '../../ui/pieces';

export default function Packet() {
  const { packetId } = useLocalSearchParams<{ packetId: string }>();
  const session = useSession();
  const packet = usePacket(session.data?.member ? packetId : '');
  if (session.data && !session.data.member) return <Redirect href="/sign-in" />;
  if (packet.isError)
    return (
      <Page>
        <Trouble error={packet.error} retry={() => void packet.refetch()} />
      </Page>
    );
  if (!packet.data) return <Loading what="the packet" />;
  return packet.data.sent ? (
    <PacketScreen packet={packet.data} sent={packet.data.sent} />
  ) : (
    <DeskScreen key={packet.data.id} packet={packet.data} />
  );
}
