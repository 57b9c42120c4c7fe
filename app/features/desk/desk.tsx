/** The desk of a draft: the pages, and panels on demand beside them, or behind tabs on a phone. */
import { type ComponentType, type ReactNode, useEffect, useState } from 'react';
import { ScrollView, View } from 'react-native';
import type { PacketView } from '@gatepath/contract';
import { Part } from '../../ui/boundary';
import { usePalette, useWide } from '../../ui/hooks';
import { IconButton } from '../../ui/pieces';
import { TabbedView, TabPanel } from '../../ui/tabs';
import { CheckPanel } from './check-panel';
import { InsertDialog, SendDialog } from './desk-dialogs';
import { DeskHeader } from './desk-header';
import { PACKET_SETUP, type DeskSetup } from './desk-setup';
import { countStops, onPage, positionOf, selectedMarks } from './desk-state';
import type { DeskStore } from './desk-store';
import { LedgerPanel } from './ledger-panel';
import { LedgerStrip } from './ledger-strip';
import { MarkDetails } from './mark-details';
import { PageStage } from './page-stage';
import { PanelStrip } from './panel-strip';
import { TABS, type DeskPanel, type DeskTab } from './panels';
import { PathPanel } from './path-panel';
import { PreviewAs } from './preview';
import { RememberedCards } from '../memory/remembered-card';
import { PrintedPanel } from './printed-panel';
import { ToolBar, ToolRail, WideBar } from './tool-bar';
import { DeskContext, useDesk, useDeskStore, useNewDesk, useOnDesk } from './use-desk';
import { Row, Stack } from '../../ui/layout';
import { TEXT } from './words';

interface DeskProps {
  packet: PacketView;
  setup?: DeskSetup;
  /** What the desk is for in the end, instead of sending a packet: the button in its header. */
  finish?: ReactNode;
  /** Instead of the path. */
  PathPart?: ComponentType;
}

export function DeskScreen({ packet, setup = PACKET_SETUP, finish, PathPart = PathPanel }: DeskProps) {
  const desk = useNewDesk(packet, setup);
  return (
    <DeskContext.Provider value={desk}>
      <DeskParts finish={finish} PathPart={PathPart} />
    </DeskContext.Provider>
  );
}

function DeskParts({ finish, PathPart }: { finish: ReactNode; PathPart: ComponentType }) {
  const desk = useDeskStore();
  const p = usePalette();
  const wide = useWide();
  const [tab, setTab] = useState<DeskTab>('pages');
  const [open, setOpen] = useState<'send' | 'details' | 'preview' | null>(null);
  const [insertAt, setInsertAt] = useState<{ x: number; y: number } | null>(null);
  useDeskKeys(desk);
  const send = () => (countStops(desk.store.getState()) ? setTab('check') : setOpen('send'));
  const stage = <PageStage onInsert={(x, y) => setInsertAt({ x, y })} />;
  const over = <Remembered onSend={send} />;
  const details = () => setOpen('details');
  return (
    <View style={{ flex: 1, backgroundColor: p.paper }}>
      <TabbedView value={tab} onChange={(v) => setTab(TABS.find((t) => t.value === v)?.value ?? 'pages')}>
        <DeskHeader tab={tab} onSee={() => setOpen('preview')} finish={finish} onSend={send} onOpen={setTab} />
        {wide ? (
          <Wide tab={tab} onTab={setTab} PathPart={PathPart} over={over} stage={stage} onDetails={details} />
        ) : (
          <Narrow tab={tab} onTab={setTab} PathPart={PathPart} over={over} stage={stage} onDetails={details} />
        )}
      </TabbedView>
      {open === 'details' ? <DetailsOfOne onClose={() => setOpen(null)} /> : null}
      {open === 'preview' ? <PreviewAs onClose={() => setOpen(null)} /> : null}
      {insertAt ? <InsertDialog at={insertAt} onClose={() => setInsertAt(null)} /> : null}
      {open === 'send' ? <SendDialog onClose={() => setOpen(null)} /> : null}
    </View>
  );
}

interface LayoutProps {
  tab: DeskTab;
  onTab: (tab: DeskTab) => void;
  PathPart: ComponentType;
  /** What lies over the page. */
  over: ReactNode;
  stage: ReactNode;
  onDetails: () => void;
}

/** The pages between the ledger and the tools on the left, and the panels on the right. */
const Wide = ({ tab, onTab, PathPart, over, stage, onDetails }: LayoutProps) => (
  <Row role="main" align="stretch" grow>
    <LedgerStrip />
    <ToolRail />
    <Stack grow>
      {over}
      {stage}
      <WideBar onDetails={onDetails} />
    </Stack>
    {tab === 'pages' ? null : <OpenPanel panel={tab} PathPart={PathPart} onClose={() => onTab('pages')} />}
    <PanelStrip open={tab === 'pages' ? null : tab} onOpen={(panel) => onTab(panel ?? 'pages')} />
  </Row>
);

/** One panel at a time, the pages among them. */
const Narrow = ({ tab, onTab, PathPart, over, stage, onDetails }: LayoutProps) => (
  <Stack role="main" grow>
    {TABS.map(({ value }) => (
      <TabPanel key={value} value={value} style={value === tab ? { flex: 1 } : undefined}>
        {value === 'pages' ? (
          <>
            {over}
            {stage}
            <ToolBar onDetails={onDetails} />
          </>
        ) : (
          <ScrollView contentContainerStyle={PAD}>
            <PanelOf panel={value} PathPart={PathPart} onGo={() => onTab('pages')} />
          </ScrollView>
        )}
      </TabPanel>
    ))}
  </Stack>
);

const PAD = { padding: 14, paddingBottom: 40 } as const;

/** The details of the selected mark, if it is the only one. */
function DetailsOfOne({ onClose }: { onClose: () => void }) {
  const [mark, ...others] = useDesk(selectedMarks);
  return mark && !others.length ? <MarkDetails key={mark.id} mark={mark} onClose={onClose} /> : null;
}

/** What the current document had on it the last time, over the page: nobody should have to look for it. */
function Remembered({ onSend }: { onSend: () => void }) {
  const on = useOnDesk();
  const only = useDesk((s) => positionOf(s)?.documentId ?? '');
  const isForm = useDesk((s) => s.setup.what === 'form');
  const wide = useWide();
  return isForm ? null : (
    <View style={{ paddingHorizontal: 10 }}>
      <RememberedCards on={on} only={only} isShort={!wide} onSend={onSend} />
    </View>
  );
}

interface PanelProps {
  panel: DeskPanel;
  PathPart: ComponentType;
}

/** A panel beside the pages of a wide screen. */
function OpenPanel({ panel, PathPart, onClose }: PanelProps & { onClose: () => void }) {
  const p = usePalette();
  return (
    <Stack role="region" aria-label={nameOf(panel)} style={{ width: 340, borderLeftWidth: 1, borderColor: p.rule }}>
      <Row justify="end">
        <IconButton name="close" label={TEXT.closeThisPanel} onPress={onClose} testID="close-panel" />
      </Row>
      <ScrollView contentContainerStyle={{ ...PAD, paddingTop: 0 }}>
        <PanelOf panel={panel} PathPart={PathPart} />
      </ScrollView>
    </Stack>
  );
}

const PANEL_PARTS: Record<Exclude<DeskPanel, 'path'>, ComponentType<{ onGo?: () => void }>> = {
  printed: PrintedPanel,
  ledger: LedgerPanel,
  check: CheckPanel,
};

const nameOf = (panel: DeskPanel): string =>
  ({ printed: TEXT.printedPlaces, ledger: TEXT.pageLedger, check: TEXT.gateCheck, path: TEXT.path })[panel];

/** @param onGo shows the pages, if they are behind a tab */
function PanelOf({ panel, PathPart, onGo }: PanelProps & { onGo?: () => void }) {
  const Panel = panel === 'path' ? PathPart : PANEL_PARTS[panel];
  return (
    <Part name={nameOf(panel)}>
      <Panel {...(onGo ? { onGo } : {})} />
    </Part>
  );
}

/**
 * Handles the keyboard of the desk, except while somebody is typing: Ctrl or Cmd with Z, Shift-Z, C, V and A; Escape
 * clears the selection. Marks and the page handle keys of their own.
 */
function useDeskKeys({ store, acts }: DeskStore): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.target instanceof HTMLElement && /^(INPUT|TEXTAREA)$/.test(e.target.tagName)) return;
      const state = store.getState();
      const at = positionOf(state);
      const key = e.key.toLowerCase();
      if (key === 'escape' && (state.selectedIds.length || state.proposalId || state.redlineId)) {
        acts.select(null);
        return;
      }
      if (!(e.ctrlKey || e.metaKey)) return;
      if (key === 'z' && e.shiftKey) acts.redo();
      else if (key === 'z') acts.undo();
      else if (key === 'y') acts.redo();
      else if (key === 'c' && state.selectedIds.length) acts.copy();
      else if (key === 'v' && state.copied.length) acts.paste();
      else if (key === 'a' && at) acts.selectMany(onPage(state.view.marks, at).map((m) => m.id));
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [store, acts]);
}
