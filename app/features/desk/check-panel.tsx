/** The gate check: findings of one kind as one sentence, with its places inside; touching one goes there. */
import { useMemo, useState } from 'react';
import { Pressable, View } from 'react-native';
import { groupFindings, type Finding, type FindingGroup } from '@gatepath/core/checks';
import { usePalette } from '../../ui/hooks';
import { Button, Loading, Note } from '../../ui/pieces';
import { Body, Heading, Small, Strong } from '../../ui/text';
import { countOpenPlaces } from './desk-state';
import { useDesk, useDeskActs } from './use-desk';
import { TEXT } from './words';
import { itemAt } from '@gatepath/core/sure';
import { Row, Stack } from '../../ui/layout';

/** Number of findings of one kind that are listed at a time. */
const SHOWN = 20;

export function CheckPanel({ onGo }: { onGo?: () => void }) {
  const { ready, findings, isForm, open } = useDesk((s) => ({
    ready: s.ready,
    findings: s.view.findings,
    isForm: s.setup.what === 'form',
    open: countOpenPlaces(s),
  }));
  const groups = useMemo(() => groupFindings(findings), [findings]);
  if (!ready) return <Loading what={TEXT.thePages} />;
  return (
    <Stack gap={8} testID="gate-check">
      <Heading>{TEXT.gateCheck}</Heading>
      {groups.length === 0 ? (
        <Note tone="good" title={open ? TEXT.placesStayEmpty(open) : TEXT.nothingIsMissing} testID="check-clean">
          {open ? TEXT.assignOrDismissThem : TEXT.everyPageAndEveryPerson(isForm ? TEXT.itCanGo : TEXT.youCanSend)}
        </Note>
      ) : null}
      {groups.map((g) => (
        <GroupCard key={`${g.severity}:${g.rule}:${g.fix ?? ''}`} group={g} onGo={onGo} />
      ))}
    </Stack>
  );
}

interface CardProps {
  group: FindingGroup;
  onGo: (() => void) | undefined;
}

function GroupCard({ group, onGo }: CardProps) {
  const p = usePalette();
  const { fix, goToPlace } = useDeskActs();
  const [open, setOpen] = useState(false);
  const { findings, rule, severity, sentence } = group;
  const stops = severity === 'stops';
  const several = findings.length > 1;
  const go = ({ place }: Finding) => {
    goToPlace(place);
    if (place.documentId) onGo?.();
  };
  const turn = () => setOpen((x) => !x);
  return (
    <View
      testID={`finding-${rule}`}
      style={{
        backgroundColor: p.sheet,
        borderWidth: 1,
        borderColor: p.rule,
        borderLeftWidth: 6,
        borderLeftColor: stops ? p.wine : p.ochre,
        borderRadius: 12,
        paddingHorizontal: 12,
        paddingVertical: 8,
      }}
    >
      <Pressable
        role="button"
        aria-expanded={several ? open : undefined}
        onPress={() => (several ? turn() : go(itemAt(findings, 0)))}
        style={{ minHeight: 44, justifyContent: 'center' }}
      >
        <Strong>{sentence}</Strong>
        <Small>{stops ? TEXT.stopsSending : TEXT.aWarning}</Small>
      </Pressable>
      <Row wrap>
        {group.fix ? (
          <Button kind="quiet" onPress={() => fix(group)} fit testID={`fix-${rule}`}>
            {group.fix}
          </Button>
        ) : null}
        {several ? (
          <Button kind="quiet" onPress={turn} fit testID={`places-${rule}`}>
            {open ? TEXT.hideThem : TEXT.showEach(findings.length)}
          </Button>
        ) : null}
      </Row>
      {several && open ? <Each findings={findings} onGo={go} /> : null}
    </View>
  );
}

/** The findings of one kind, each leading to its place. */
function Each({ findings, onGo }: { findings: Finding[]; onGo: (finding: Finding) => void }) {
  const p = usePalette();
  const [shown, setShown] = useState(SHOWN);
  return (
    <>
      {findings.slice(0, shown).map((f, i) => (
        <Pressable
          key={i}
          role="button"
          onPress={() => onGo(f)}
          style={{ minHeight: 44, justifyContent: 'center', borderTopWidth: 1, borderColor: p.rule }}
        >
          <Body style={{ fontSize: 15 }}>{f.sentence}</Body>
        </Pressable>
      ))}
      {findings.length > shown ? (
        <Button kind="quiet" onPress={() => setShown((n) => n + SHOWN)} fit>
          {TEXT.showMore(findings.length - shown)}
        </Button>
      ) : null}
    </>
  );
}
