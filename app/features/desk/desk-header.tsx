/** The header of the desk: what is prepared, whether it is saved, and on a phone the panels as tabs. */
import { router } from 'expo-router';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { canAccept } from '@gatepath/core/packet';
import { count } from '@gatepath/core/text';
import { usePalette, useWide } from '../../ui/hooks';
import { Button, IconButton } from '../../ui/pieces';
import { Tab, TabList } from '../../ui/tabs';
import { Body, Small, Title } from '../../ui/text';
import { FONT } from '../../ui/theme';
import type { Desk } from './use-desk';
import { Banner } from '../../ui/banner';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export type DeskTab = 'pages' | 'printed' | 'ledger' | 'path' | 'check';
/** The panels of the desk, in order. */
export const TABS: { value: DeskTab; label: string }[] = [
  { value: 'pages', label: 'Pages' },
  { value: 'printed', label: TEXT.printed },
  { value: 'ledger', label: TEXT.ledger },
  { value: 'path', label: TEXT.path },
  { value: 'check', label: TEXT.check },
];

/** Returns how many findings stop the packet, and how many warn. */
export function findingsOf({ view }: Desk): { stops: number; warns: number } {
  const stops = view.findings.filter((f) => f.severity === 'stops').length;
  return { stops, warns: view.findings.length - stops };
}

interface Props {
  desk: Desk;
  tab: DeskTab;
  onSee: () => void;
  onSend: () => void;
  /** Instead of sending. */
  finish?: ReactNode;
}

export function DeskHeader({ desk, tab, onSee, onSend, finish }: Props) {
  const onShelf = desk.bench.what === 'form';
  const wide = useWide();
  const { stops, warns } = findingsOf(desk);
  const unsaved = desk.saving.state === 'refused' || desk.saving.state === 'offline';
  return (
    <Banner style={{ paddingHorizontal: wide ? 16 : 8, paddingTop: 6, paddingBottom: wide ? 6 : 0 }}>
      <Row gap={8}>
        <IconButton
          name="arrow-left"
          label={onShelf ? TEXT.backToTheShelf : TEXT.backToTheDeal}
          onPress={() => router.navigate(onShelf ? '/shelf' : `/deals/${desk.packet.dealId}`)}
        />
        <Stack grow>
          <Title numberOfLines={1} style={{ fontSize: wide ? 22 : 19, lineHeight: wide ? 28 : 24 }}>
            {desk.draft.name}
          </Title>
          <SavedOrNot desk={desk} wide={wide} unsaved={unsaved} />
        </Stack>
        {wide ? (
          <Small tone={stops ? 'stop' : 'good'} style={{ marginRight: 10, fontFamily: FONT.bold }}>
            {[stops ? count(stops, 'stop') : TEXT.nothingStops, warns ? count(warns, 'warning') : '']
              .filter(Boolean)
              .join(', ')}
          </Small>
        ) : null}
        {finish ?? (
          <>
            <IconButton
              name="eye"
              label={TEXT.previewAsAParty}
              disabled={!desk.ready || !desk.draft.parties.length}
              onPress={onSee}
              testID="see-as"
            />
            <Button kind="main" onPress={onSend} disabled={!desk.ready} testID="send">
              {wide ? TEXT.sendThroughGate : TEXT.send}
            </Button>
          </>
        )}
      </Row>
      {wide ? null : <DeskTabs desk={desk} tab={tab} />}
    </Banner>
  );
}

/** On a phone one line: the deal, or what is not saved. */
function SavedOrNot({ desk, wide, unsaved }: { desk: Desk; wide: boolean; unsaved: boolean }) {
  const p = usePalette();
  const { sentence } = desk.saving;
  return (
    <Small testID="saving" numberOfLines={wide || unsaved ? 2 : 1} style={unsaved ? { color: p.wine } : null}>
      {!wide && unsaved ? sentence : `${desk.packet.dealName} · ${sentence}`}
    </Small>
  );
}

function DeskTabs({ desk, tab }: Pick<Props, 'desk' | 'tab'>) {
  const p = usePalette();
  const { stops } = findingsOf(desk);
  const openPlaces = desk.view.proposals.some(canAccept);
  return (
    <TabList label={TEXT.partsOfTheDesk} style={{ flexDirection: 'row', gap: 2, paddingVertical: 4 }}>
      {TABS.map((t) => (
        <Tab
          key={t.value}
          value={t.value}
          testID={`tab-${t.value}`}
          style={{
            // As wide as its words, and a share of what is left: the last one has a number beside them.
            flexGrow: 1,
            paddingHorizontal: 6,
            minHeight: 44,
            flexDirection: 'row',
            gap: 4,
            borderRadius: 12,
            alignItems: 'center',
            justifyContent: 'center',
            backgroundColor: t.value === tab ? p.ink : 'transparent',
          }}
        >
          <Body style={{ color: t.value === tab ? p.paper : p.slate, fontFamily: FONT.bold, fontSize: 15 }}>
            {t.value === 'path' && desk.bench.what === 'form' ? TEXT.roles : t.label}
          </Body>
          {t.value === 'printed' && openPlaces ? (
            <View style={{ width: 9, height: 9, borderRadius: 5, backgroundColor: p.brick }} />
          ) : null}
          {t.value === 'check' && desk.view.findings.length ? (
            <View style={{ backgroundColor: stops ? p.wine : p.ochre, borderRadius: 10, paddingHorizontal: 7 }}>
              <Body style={{ color: p.sheet, fontFamily: FONT.bold, fontSize: 14, lineHeight: 20 }}>
                {desk.view.findings.length}
              </Body>
            </View>
          ) : null}
        </Tab>
      ))}
    </TabList>
  );
}
