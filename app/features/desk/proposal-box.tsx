/** A printed place that was read: dotted and hollow, because it is not a mark yet. */
import { memo } from 'react';
import { Pressable, View } from 'react-native';
import { KINDS, type PacketParty, type Proposal, lettersOf } from '@gatepath/core/packet';
import { inkOf } from '@gatepath/core/inks';
import { Body } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { useDesk, useDeskActs } from './use-desk';
import { TEXT } from './words';

interface Props {
  proposal: Proposal;
  party: PacketParty | null;
  scale: number;
}

/** The color of places without a name. */
const PENCIL = '#5B6770';

export const ProposalBox = memo(function ProposalBox({ proposal, party, scale }: Props) {
  const { pickProposal } = useDeskActs();
  const selected = useDesk((s) => s.proposalId === proposal.id);
  const { rect, kind } = proposal;
  const color = party ? inkOf(party.ink).color : PENCIL;
  const h = rect.h * scale;
  const short = rect.w * scale < 60;
  const asked = proposal.doubtful ? '??' : '?';
  const words = `${party ? `${lettersOf(party)}${asked}` : '?'}${short ? '' : ` ${KINDS[kind].word}`}`;
  const size = Math.max(7, Math.min(13, h * 0.5, (rect.w * scale) / (words.length * 0.6)));
  return (
    <Pressable
      role="button"
      testID={`proposal-${kind}`}
      aria-label={TEXT.printedPlacePageNot(
        KINDS[kind].word,
        party ? TEXT.forWordOf(party.name) : TEXT.notAssignedYet,
        proposal.page,
        proposal.doubtful ? TEXT.uncertainCheckItFirst : '',
      )}
      onPress={() => pickProposal(proposal.id)}
      hitSlop={8}
      style={{
        position: 'absolute',
        left: rect.x * scale,
        top: rect.y * scale,
        width: rect.w * scale,
        height: h,
        zIndex: selected ? 2 : 1,
      }}
    >
      <View
        style={{
          flex: 1,
          borderWidth: selected ? 2.5 : 1.5,
          borderStyle: 'dotted',
          borderColor: color,
          borderRadius: 3,
          alignItems: 'center',
          justifyContent: 'center',
          overflow: 'hidden',
          backgroundColor: selected ? '#FFFFFFD9' : 'transparent',
          ...(selected ? { boxShadow: `0 0 0 4px ${color}33` } : {}),
        }}
      >
        {kind === 'tick' || kind === 'choice' ? null : (
          <Body numberOfLines={1} style={{ color, fontFamily: FONT.text, fontSize: size, lineHeight: size * 1.2 }}>
            {words}
          </Body>
        )}
      </View>
    </Pressable>
  );
});
