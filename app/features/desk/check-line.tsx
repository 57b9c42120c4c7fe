/** The gate check in one line: what to do first, with its fix, always in view. */
import { useMemo } from 'react';
import { groupFindings } from '@gatepath/core/checks';
import { isSure } from '@gatepath/core/packet';
import { usePalette, useWide } from '../../ui/hooks';
import { Button } from '../../ui/pieces';
import { Body } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { Row } from '../../ui/layout';
import { countOpenPlaces } from './desk-state';
import type { DeskPanel } from './panels';
import { useDesk, useDeskActs } from './use-desk';
import { TEXT } from './words';

interface Line {
  tone: 'stop' | 'warn' | 'good' | 'plain';
  sentence: string;
  fix?: { label: string; act: () => void };
  /** The number of other kinds of findings. */
  more: number;
  /** The panel that shows what the line is about. */
  panel: DeskPanel;
}

/**
 * Returns the line: printed places that can be accepted, if there are any; otherwise the first finding; otherwise that
 * nothing is missing.
 */
function useLine(): Line {
  const { accept, fix } = useDeskActs();
  const { ready, findings, proposals } = useDesk((s) => ({
    ready: s.ready,
    findings: s.view.findings,
    proposals: s.view.proposals,
  }));
  const { isForm, open } = useDesk((s) => ({ isForm: s.setup.what === 'form', open: countOpenPlaces(s) }));
  const groups = useMemo(() => groupFindings(findings), [findings]);
  if (!ready) return { tone: 'plain', sentence: TEXT.readingThePages, more: 0, panel: 'check' };
  const sure = proposals.filter((x) => x.state === 'open' && !x.stranger && isSure(x));
  if (sure.length) {
    // Accepting them also fixes what the check finds about those of them that are signatures and initials.
    const others = groups.filter((g) => !(g.rule === 'printed-place-open' && g.fix));
    return {
      tone: groups.some((g) => g.severity === 'stops') ? 'stop' : 'warn',
      sentence: TEXT.placesWithoutMark(sure.length),
      fix: { label: TEXT.placeThem(sure.length), act: () => accept(sure) },
      more: others.length,
      panel: others.length ? 'check' : 'printed',
    };
  }
  const [first, ...others] = groups;
  if (!first) {
    const then = isForm ? TEXT.itCanGo : TEXT.readyToSend;
    const sentence = `${open ? TEXT.placesStayEmpty(open) : TEXT.nothingIsMissing}. ${then}`;
    return { tone: 'good', sentence, more: 0, panel: open ? 'printed' : 'check' };
  }
  return {
    tone: first.severity === 'stops' ? 'stop' : 'warn',
    sentence: first.sentence,
    ...(first.fix ? { fix: { label: first.fix, act: () => fix(first) } } : {}),
    more: others.length,
    panel: 'check',
  };
}

export function CheckLine({ onOpen }: { onOpen: (panel: DeskPanel) => void }) {
  const p = usePalette();
  const wide = useWide();
  const { tone, sentence, fix, more, panel } = useLine();
  const wash = { stop: p.brickWash, warn: p.ochreWash, good: 'transparent', plain: 'transparent' }[tone];
  const color = { stop: p.wine, warn: p.ink, good: p.moss, plain: p.slate }[tone];
  const isDone = tone === 'plain' || (tone === 'good' && panel === 'check');
  const rest = isDone ? null : more ? TEXT.andOthers(more) : TEXT.see;
  return (
    <Row
      role="status"
      testID="check-line"
      gap={8}
      style={{
        backgroundColor: wash,
        borderRadius: wide ? 12 : 0,
        paddingHorizontal: 12,
        minHeight: 44,
        flexShrink: 1,
        justifyContent: wide ? 'flex-end' : 'space-between',
      }}
    >
      <Body numberOfLines={2} style={{ color, fontFamily: FONT.bold, fontSize: 15, lineHeight: 19, flexShrink: 1 }}>
        {sentence}
      </Body>
      <Row>
        {fix ? (
          <Button kind="quiet" onPress={fix.act} testID="check-fix" fit>
            {fix.label}
          </Button>
        ) : null}
        {rest ? (
          <Button kind="quiet" onPress={() => onOpen(panel)} testID="check-open" fit>
            {rest}
          </Button>
        ) : null}
      </Row>
    </Row>
  );
}
