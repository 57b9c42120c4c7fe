/** The path of a packet with everyone at their gate: down a phone, across a wide screen. */
import { router } from 'expo-router';
import { ScrollView, View } from 'react-native';
import type { PacketView, SentView } from '@gatepath/contract';
import { GatePost, type GateState } from '../../ui/gate';
import { byKeys, usePalette, useWide } from '../../ui/hooks';
import { Button, Card } from '../../ui/pieces';
import { Heading, Small } from '../../ui/text';
import { PartyLine } from './party-line';
import { gateState } from '../packet-status/path-strip';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

interface Props {
  packet: PacketView;
  sent: SentView;
}

/** Width of a gate below which the path scrolls, in pixels. */
const GATE_WIDTH = 250;

export function PathCard({ packet, sent }: Props) {
  const wide = useWide();
  const { plan } = sent;
  const atGates = new Set(plan.gates.flatMap((g) => g.partyIds));
  const copies = plan.parties.filter((x) => !atGates.has(x.id));
  const people = (ids: string[]) => ids.map((id) => <PartyLine key={id} id={id} packet={packet} sent={sent} />);
  const gates = plan.gates.map((gate, i) => {
    const state = gateState({ status: packet.status, gate: sent.gate }, i);
    const last = i === plan.gates.length - 1;
    return (
      <View
        key={gate.id}
        style={wide ? { flex: 1, minWidth: GATE_WIDTH, gap: 10 } : { flexDirection: 'row', gap: 12 }}
        testID="gate"
      >
        <View style={{ flexDirection: wide ? 'row' : 'column', alignItems: 'center' }}>
          <GatePost state={state} n={i + 1} size={34} />
          {last ? null : <Way state={state} wide={wide} />}
        </View>
        <Stack gap={8} style={{ flex: wide ? undefined : 1, paddingBottom: 12, paddingRight: wide ? 16 : 0 }}>
          {gate.need === 'any' ? <Small>{TEXT.anyOneOfThem}</Small> : null}
          {people(gate.partyIds)}
        </Stack>
      </View>
    );
  });
  return (
    <Card>
      <Heading>{TEXT.path}</Heading>
      {wide ? (
        <ScrollView horizontal {...byKeys(TEXT.theGatesOfThePath)} contentContainerStyle={{ flexGrow: 1 }}>
          {gates}
        </ScrollView>
      ) : (
        gates
      )}
      {copies.length ? (
        <View style={wide ? { flexDirection: 'row', flexWrap: 'wrap', columnGap: 24, rowGap: 10 } : { gap: 10 }}>
          {copies.map((x) => (
            <View key={x.id} style={wide ? { minWidth: GATE_WIDTH, maxWidth: 420 } : null}>
              {people([x.id])}
            </View>
          ))}
        </View>
      ) : null}
      <Button kind="quiet" icon="email" onPress={() => router.push(`/mailroom?packetId=${packet.id}`)} fit>
        {TEXT.whatWasSentToWhom}
      </Button>
    </Card>
  );
}

/** The line from one gate to the next. */
function Way({ state, wide }: { state: GateState; wide: boolean }) {
  const p = usePalette();
  const backgroundColor = state === 'passed' ? p.moss : p.rule;
  return (
    <View
      style={[
        { flex: 1, backgroundColor },
        wide ? { height: 3, marginHorizontal: 6 } : { width: 3, marginVertical: 4 },
      ]}
    />
  );
}
