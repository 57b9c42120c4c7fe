/** One cell of the table of deals, by its column. */
import { router } from 'expo-router';
import { Pressable, View } from 'react-native';
import type { DealSummary } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import { forWhomWords, isOver, KIND_WORDS, STATUS_WORDS } from '@gatepath/core/deal';
import { upperFirst } from '@gatepath/core/text';
import { usePalette } from '../../ui/hooks';
import { Small, Strong } from '../../ui/text';
import { PathStrip } from '../packet-status/path-strip';
import { TEXT } from './words';

/** Height of a row, in pixels. */
export const ROW = 40;

/** Returns the packet a row describes: one at a gate, otherwise the latest. */
const packetOf = (d: DealSummary) => d.packets.find((x) => x.status === 'at_gate') ?? d.packets[0];

// eslint-disable-next-line max-lines-per-function -- one case for each column
export function DealCell({ id, deal: d }: { id: string; deal: DealSummary }) {
  const p = usePalette();
  const packet = packetOf(d);
  const plain = (text: string, color = p.ink) => (
    <Small numberOfLines={1} style={{ color }}>
      {text}
    </Small>
  );
  switch (id) {
    case 'address':
      return (
        <Pressable
          role="link"
          onPress={() => router.push(`/deals/${d.id}`)}
          style={{ height: ROW, justifyContent: 'center' }}
        >
          <Strong numberOfLines={1} style={{ fontSize: 15 }}>
            {d.address}
          </Strong>
        </Pressable>
      );
    case 'kind':
      return plain(KIND_WORDS[d.kind]);
    case 'status':
      return plain(upperFirst(STATUS_WORDS[d.status]), isOver(d.status) ? p.slate : p.ink);
    case 'whom':
      return plain(forWhomWords(d.forWhom));
    case 'papers': {
      const { met, of, late } = d.readiness;
      const over = isOver(d.status);
      return of
        ? plain(TEXT.metOf(met, of), over ? p.slate : late.length ? p.wine : met === of ? p.moss : p.ochre)
        : null;
    }
    case 'goal':
      return d.goalOn ? plain(shortDay(d.goalOn)) : null;
    case 'path':
      return packet ? (
        <View style={{ height: 28, overflow: 'hidden' }}>
          <PathStrip packet={packet} />
        </View>
      ) : null;
    case 'hold':
      return packet ? (
        <Pressable
          role="link"
          aria-label={`${packet.name}: ${packet.holdUp || packet.status}`}
          onPress={() => router.push(`/packets/${packet.id}`)}
          style={{ height: ROW, justifyContent: 'center' }}
        >
          {plain(
            `${packet.name}${packet.holdUp ? `: ${packet.holdUp}` : packet.status === 'drafting' ? TEXT.draft : ''}`,
            packet.status === 'at_gate' ? p.brick : p.slate,
          )}
        </Pressable>
      ) : (
        plain(TEXT.noPacketYet, p.slate)
      );
    case 'tags':
      return plain(d.tags.join(', '), p.slate);
    default:
      return plain(shortDay(d.createdAt.slice(0, 10)), p.slate);
  }
}
