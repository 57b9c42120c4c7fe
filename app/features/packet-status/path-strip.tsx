/** The path as a short strip: gate posts with the parties' tokens, wherever a packet is listed. */
import { View } from 'react-native';
import type { PacketSummary } from '@gatepath/contract';
import { GatePost, type GateState } from '../../ui/gate';
import { usePalette } from '../../ui/hooks';
import { Token } from '../../ui/token';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

export function gateState(p: { status: string; gate: number }, index: number): GateState {
  if (p.status === 'executed' || index < p.gate) return 'passed';
  if (p.status === 'drafting') return 'closed';
  if (index > p.gate) return 'closed';
  return p.status === 'at_gate' ? 'lit' : 'stopped';
}

export function PathStrip({ packet }: { packet: Pick<PacketSummary, 'status' | 'gate' | 'path' | 'parties'> }) {
  const p = usePalette();
  return (
    <Row wrap style={{ rowGap: 6 }}>
      {packet.path.map((gate, i) => (
        <Row key={i}>
          {i > 0 ? (
            <View
              style={{ width: 22, height: 3, backgroundColor: gateState(packet, i - 1) === 'passed' ? p.moss : p.rule }}
            />
          ) : null}
          <GatePost state={gateState(packet, i)} n={i + 1} size={26} />
          <Row align="stretch" style={{ gap: 3, marginLeft: 5, marginRight: 5 }}>
            {gate.partyIds.map((id) => {
              const party = packet.parties.find((x) => x.id === id);
              return party ? (
                <Token
                  key={id}
                  name={party.name}
                  ink={party.ink}
                  size={24}
                  label={`${party.name}${party.done ? TEXT.done : ''}`}
                />
              ) : null;
            })}
          </Row>
        </Row>
      ))}
    </Row>
  );
}
