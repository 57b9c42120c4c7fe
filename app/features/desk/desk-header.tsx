/** The header of the desk: what is prepared, whether it is saved, what the gate check says first, and sending. */
import { router } from 'expo-router';
import { useMemo, type ReactNode } from 'react';
import { View } from 'react-native';
import { groupFindings } from '@gatepath/core/checks';
import { canAccept } from '@gatepath/core/packet';
import { usePalette, useWide } from '../../ui/hooks';
import { Button, IconButton } from '../../ui/pieces';
import { Tab, TabList } from '../../ui/tabs';
import { Body, Small, Title } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { CheckLine } from './check-line';
import { countStops } from './desk-state';
import { TABS, type DeskPanel, type DeskTab } from './panels';
import { useDesk } from './use-desk';
import { Banner } from '../../ui/banner';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

interface Props {
  tab: DeskTab;
  onSee: () => void;
  onSend: () => void;
  onOpen: (panel: DeskPanel) => void;
  /** Instead of sending. */
  finish?: ReactNode;
}

export function DeskHeader({ tab, onSee, onSend, onOpen, finish }: Props) {
  const wide = useWide();
  const { onShelf, dealId, name, ready, empty } = useDesk((s) => ({
    onShelf: s.setup.what === 'form',
    dealId: s.packet.dealId,
    name: s.draft.name,
    ready: s.ready,
    empty: !s.draft.parties.length,
  }));
  return (
    <Banner style={{ paddingHorizontal: wide ? 16 : 0, paddingTop: 6, paddingBottom: wide ? 6 : 0 }}>
      <Row gap={8} style={wide ? null : { paddingHorizontal: 8 }}>
        <IconButton
          name="arrow-left"
          label={onShelf ? TEXT.backToTheShelf : TEXT.backToTheDeal}
          onPress={() => router.navigate(onShelf ? '/shelf' : `/deals/${dealId}`)}
        />
        <Stack grow style={{ minWidth: wide ? 220 : 0 }}>
          <Title numberOfLines={1} style={{ fontSize: wide ? 22 : 19, lineHeight: wide ? 28 : 24 }}>
            {name}
          </Title>
          <SavedOrNot wide={wide} />
        </Stack>
        {wide ? <CheckLine onOpen={onOpen} /> : null}
        {finish ?? (
          <>
            <IconButton
              name="eye"
              label={TEXT.previewAsAParty}
              disabled={!ready || empty}
              onPress={onSee}
              testID="see-as"
            />
            <Button kind="main" onPress={onSend} disabled={!ready} testID="send">
              {wide ? TEXT.sendThroughGate : TEXT.send}
            </Button>
          </>
        )}
      </Row>
      {wide ? null : <DeskTabs tab={tab} />}
      {wide || tab === 'check' ? null : <CheckLine onOpen={onOpen} />}
    </Banner>
  );
}

/** On a phone one line: the deal, or what is not saved. */
function SavedOrNot({ wide }: { wide: boolean }) {
  const p = usePalette();
  const { saving, deal } = useDesk((s) => ({ saving: s.saving, deal: s.packet.dealName }));
  const unsaved = saving.state === 'refused' || saving.state === 'offline';
  return (
    <Small testID="saving" numberOfLines={wide || unsaved ? 2 : 1} style={unsaved ? { color: p.wine } : null}>
      {!wide && unsaved ? saving.sentence : `${deal} · ${saving.sentence}`}
    </Small>
  );
}

function DeskTabs({ tab }: Pick<Props, 'tab'>) {
  const p = usePalette();
  const isForm = useDesk((s) => s.setup.what === 'form');
  return (
    <TabList
      label={TEXT.partsOfTheDesk}
      style={{ flexDirection: 'row', gap: 2, paddingVertical: 4, paddingHorizontal: 8 }}
    >
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
            {t.value === 'path' && isForm ? TEXT.roles : t.label}
          </Body>
          {t.value === 'pages' ? null : <Badge panel={t.value} />}
        </Tab>
      ))}
    </TabList>
  );
}

/** Beside the name of a panel: a dot for open places, the number of kinds of findings. */
export function Badge({ panel }: { panel: DeskPanel }) {
  const p = usePalette();
  const { open, stops, findings } = useDesk((s) => ({
    open: s.view.proposals.some(canAccept),
    stops: countStops(s),
    findings: s.view.findings,
  }));
  const kinds = useMemo(() => groupFindings(findings).length, [findings]);
  if (panel === 'printed' && open)
    return <View style={{ width: 9, height: 9, borderRadius: 5, backgroundColor: p.brick }} />;
  if (panel !== 'check' || !kinds) return null;
  return (
    <View style={{ backgroundColor: stops ? p.wine : p.ochre, borderRadius: 10, paddingHorizontal: 7 }}>
      <Body style={{ color: p.sheet, fontFamily: FONT.bold, fontSize: 14, lineHeight: 20 }}>{kinds}</Body>
    </View>
  );
}
