/** The gate check: every finding as a sentence; touching one goes to its place. */
import { Pressable, View } from 'react-native';
import type { Finding } from '@gatepath/core/checks';
import { usePalette } from '../../ui/hooks';
import { Button, Loading, Note } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';
import type { Desk } from './use-desk';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

const SHOWN = 60;

export function CheckPanel({ desk, onGo }: { desk: Desk; onGo?: () => void }) {
  const { findings } = desk.view;
  if (!desk.ready) return <Loading what={TEXT.thePages} />;
  return (
    <Stack gap={8} testID="gate-check">
      <Heading>{TEXT.gateCheck}</Heading>
      {findings.length === 0 ? (
        <Note tone="good" title={TEXT.nothingIsMissing} testID="check-clean">
          {TEXT.everyPageAndEveryPerson(desk.bench.what === 'form' ? TEXT.itCanGo : TEXT.youCanSend)}
        </Note>
      ) : null}
      {findings.slice(0, SHOWN).map((f, i) => (
        <FindingCard
          key={`${f.rule}${i}`}
          finding={f}
          onGo={() => {
            desk.goToPlace(f.place);
            if (f.place.documentId) onGo?.();
          }}
          onMend={() => f.mend && desk.edit(f.mend.edits)}
        />
      ))}
      {findings.length > SHOWN ? <Small>{TEXT.andMoreTheyAppearAs(findings.length - SHOWN)}</Small> : null}
    </Stack>
  );
}

function FindingCard({ finding, onGo, onMend }: { finding: Finding; onGo: () => void; onMend: () => void }) {
  const p = usePalette();
  const stops = finding.severity === 'stops';
  return (
    <View
      testID={`finding-${finding.rule}`}
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
      <Pressable role="button" onPress={onGo} style={{ minHeight: 44, justifyContent: 'center' }}>
        <Strong>{finding.sentence}</Strong>
        <Small>{stops ? TEXT.stopsSending : TEXT.aWarning}</Small>
      </Pressable>
      {finding.mend ? (
        <Button kind="quiet" onPress={onMend} fit>
          {finding.mend.label}
        </Button>
      ) : null}
    </View>
  );
}
