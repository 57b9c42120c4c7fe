/** The gate check in one line: what to do first, with its fix, always in view. */
import { useMemo } from 'react';
import { groupFindings } from '@gatepath/core/checks';
import { isSure } from '@gatepath/core/packet';
import { usePalette, useWide } from '../../ui/hooks';
import { Button } from '../../ui/pieces';
import { Body } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { Row } from '../../ui/layout';
import { useDesk, useDeskActs } from './use-desk';
import { TEXT } from './words';

interface Line {
  tone: 'stop' | 'warn' | 'good' | 'plain';
  sentence: string;
  fix?: { label: string; act: () => void };
  /** How many other things there are to look at. */
  more: number;
}

/** Returns what the check says first: printed places that can be accepted, then the first finding. */
function useLine(): Line {
  const { accept, fix } = useDeskActs();
  const { ready, findings, proposals } = useDesk((s) => ({
    ready: s.ready,
    findings: s.view.findings,
    proposals: s.view.proposals,
  }));
  const isForm = useDesk((s) => s.setup.what === 'form');
  const groups = useMemo(() => groupFindings(findings), [findings]);
  if (!ready) return { tone: 'plain', sentence: TEXT.readingThePages, more: 0 };
  const sure = proposals.filter((x) => x.state === 'open' && !x.stranger && isSure(x));
  if (sure.length) {
    // Accepting them also fixes what the check finds about those of them that are signatures and initials.
    const others = groups.filter((g) => !(g.rule === 'printed-place-open' && g.fix));
    return {
      tone: groups.some((g) => g.severity === 'stops') ? 'stop' : 'warn',
      sentence: TEXT.placesWithoutMark(sure.length),
      fix: { label: TEXT.placeThem(sure.length), act: () => accept(sure) },
      more: others.length,
    };
  }
  const [first, ...others] = groups;
  if (!first) return { tone: 'good', sentence: isForm ? TEXT.nothingIsMissing : TEXT.nothingIsMissingSend, more: 0 };
  return {
    tone: first.severity === 'stops' ? 'stop' : 'warn',
    sentence: first.sentence,
    ...(first.fix ? { fix: { label: first.fix, act: () => fix(first) } } : {}),
    more: others.length,
  };
}

/** @param onOpen shows the whole check */
export function CheckLine({ onOpen }: { onOpen: () => void }) {
  const p = usePalette();
  const wide = useWide();
  const { tone, sentence, fix, more } = useLine();
  const wash = { stop: p.brickWash, warn: p.ochreWash, good: 'transparent', plain: 'transparent' }[tone];
  const color = { stop: p.wine, warn: p.ink, good: p.moss, plain: p.slate }[tone];
  const rest = tone === 'good' || tone === 'plain' ? null : more ? TEXT.andOthers(more) : TEXT.see;
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
          <Button kind="quiet" onPress={onOpen} testID="check-open" fit>
            {rest}
          </Button>
        ) : null}
      </Row>
    </Row>
  );
}
