/** A list of recalled marks to review before they are placed, each with a crop of its page. */
import { ScrollView, View } from 'react-native';
import { KINDS, type Draft, type Mark } from '@gatepath/core/packet';
import type { DocumentView, RememberedView } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { usePalette } from '../../ui/hooks';
import { Stack } from '../../ui/layout';
import { Switch } from '../../ui/switch';
import { Small } from '../../ui/text';
import { Crop } from '../pages/crop';
import { AtRect } from '../pages/mark-box';
import { TEXT } from './words';

type Remembered = NonNullable<RememberedView['remembered']>;

/** Maximum number of marks shown. */
const MOST = 40;
/** Maximum height of the list on a phone, in pixels. */
const LOW = 320;

/** Returns the marks to review: uncertain ones and, on another edition, those that moved. */
export function toReview({ kind, marks, doubtful, elsewhere }: Remembered): { uncertain: Mark[]; moved: Mark[] } {
  const ids = new Set(kind === 'edition' ? elsewhere : []);
  return { uncertain: doubtful, moved: marks.filter((m) => ids.has(m.id)) };
}

interface FoundPlacesProps {
  document: DocumentView;
  draft: Draft;
  remembered: Remembered;
  isShort: boolean;
  isOn: (mark: Mark) => boolean;
  onTurn: (mark: Mark, on: boolean) => void;
}

export function FoundPlaces({ document, draft, remembered, isShort, isOn, onTurn }: FoundPlacesProps) {
  const { uncertain, moved } = toReview(remembered);
  const all = [...uncertain, ...moved];
  return (
    <ScrollView
      style={isShort ? { maxHeight: LOW } : undefined}
      contentContainerStyle={{ gap: 8 }}
      testID="found-places"
    >
      {all.slice(0, MOST).map((m, i) => (
        <Stack key={m.id} gap={4}>
          <Switch
            label={nameOf(draft, m)}
            hint={i < uncertain.length ? TEXT.isUncertain : TEXT.isElsewhere}
            on={isOn(m)}
            onChange={(on) => onTurn(m, on)}
            testID={i < uncertain.length ? 'found-uncertain' : 'found-elsewhere'}
          />
          <CropOf document={document} mark={m} />
        </Stack>
      ))}
      {all.length > MOST ? <Small>{TEXT.andMore(all.length - MOST)}</Small> : null}
    </ScrollView>
  );
}

/** Returns the label of a mark: its person, kind and page. */
function nameOf(draft: Draft, { kind, partyId, page }: Mark): string {
  const who = draft.parties.find((p) => p.id === partyId);
  return who ? TEXT.whose(who.name, KINDS[kind].word, page) : TEXT.ofNobody(KINDS[kind].word, page);
}

function CropOf({ document, mark: { page: number, rect } }: { document: DocumentView; mark: Mark }) {
  const p = usePalette();
  const page = document.pages[number - 1];
  if (!page) return null;
  const url = urlOf('documentPage', { documentId: document.id, page: number });
  return (
    <Crop page={page} url={url} rect={rect} label={TEXT.cropOf(number)}>
      {(scale) => (
        <AtRect rect={rect} scale={scale}>
          <View style={{ flex: 1, borderWidth: 2, borderColor: p.brick }} />
        </AtRect>
      )}
    </Crop>
  );
}
