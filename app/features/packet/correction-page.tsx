/** The page of a correction: what is on it, the change as it will be, and where it is touched. */
import { useRef, useState, type ReactNode } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import type { PacketView, SentView } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import type { Redline } from '@gatepath/core/packet';
import { byKeys, useWide } from '../../ui/hooks';
import { IconButton } from '../../ui/pieces';
import { Small } from '../../ui/text';
import { Fills } from '../pages/fills';
import { Redlines } from '../pages/redlines';
import { Sheet } from '../pages/sheet';
import { elementOf, webStyle } from '../../ui/web';
import { itemAt } from '@gatepath/core/sure';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

interface Props {
  packet: PacketView;
  sent: SentView;
  look: { documentId: string; page: number };
  /** The current change. */
  redline?: Redline | null;
  /** What else is on the page, at a scale in pixels per point. */
  over?: (scale: number) => ReactNode;
  /** What touching the page does, in words. */
  hint: string;
  /** A touch, in points of the page as displayed. */
  onTouch: (at: { x: number; y: number }) => void;
}

const ZOOMS = [1, 2, 3];

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function CorrectionPage({ packet, sent, look, redline, over, hint, onTouch }: Props) {
  const wide = useWide();
  const [room, setRoom] = useState(0);
  // On a phone a finger cannot distinguish lines of a whole page.
  const [zoom, setZoom] = useState(wide ? 0 : 1);
  const paper = useRef<View>(null);
  const doc = sent.plan.documents.find((d) => d.id === look.documentId)!;
  const page = itemAt(doc.pages, look.page - 1);
  const width = room * itemAt(ZOOMS, zoom);
  const scale = width / page.width;
  const here = <T extends { documentId: string; page: number }>(all: T[]) =>
    all.filter((x) => x.documentId === look.documentId && x.page === look.page);
  const touch = ({ nativeEvent }: { nativeEvent: unknown }) => {
    const { clientX, clientY } = nativeEvent as MouseEvent;
    const box = elementOf(paper)?.getBoundingClientRect();
    if (box) onTouch({ x: (clientX - box.left) / scale, y: (clientY - box.top) / scale });
  };
  return (
    <Stack gap={4}>
      <Row>
        <Small grow>{hint}</Small>
        <IconButton name="zoom-out" label={TEXT.smaller} disabled={zoom === 0} onPress={() => setZoom(zoom - 1)} />
        <IconButton
          name="zoom-in"
          label={TEXT.larger}
          disabled={zoom === ZOOMS.length - 1}
          onPress={() => setZoom(zoom + 1)}
        />
      </Row>
      <ScrollView
        horizontal
        {...byKeys(TEXT.thePageWithTheChange)}
        onLayout={(e) => setRoom(e.nativeEvent.layout.width)}
      >
        {width > 0 ? (
          <Sheet
            page={page}
            width={width}
            url={urlOf('documentPage', { documentId: doc.id, page: look.page })}
            label={TEXT.pageOfWithTheChange(look.page, doc.name)}
          >
            {/* Who has no pointer writes the words instead: this is the quicker way for a hand. */}
            <Pressable
              ref={paper}
              aria-hidden
              tabIndex={-1}
              focusable={false}
              onPress={touch}
              testID="change-paper"
              style={webStyle({ position: 'absolute', left: 0, top: 0, right: 0, bottom: 0, cursor: 'crosshair' })}
            />
            <Redlines page={page} scale={scale} redlines={[...here(sent.redlines), ...(redline ? [redline] : [])]} />
            <Fills
              page={page}
              scale={scale}
              fills={here(sent.fills)}
              pictureUrl={(sha256) => urlOf('packetPicture', { packetId: packet.id, sha256 })}
            />
            {over?.(scale)}
          </Sheet>
        ) : null}
      </ScrollView>
    </Stack>
  );
}
