/** The gate check: every finding as a sentence; touching one goes to its place. */
import { Pressable, View } from 'react-native';
import type { Finding } from '@gatepath/core/checks';
import { usePalette } from '../../ui/hooks';
import { Button, Loading, Note } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';
import type { Desk } from './use-desk';

const SHOWN = 60;

export function CheckPanel({ desk, onGo }: { desk: Desk; onGo?: () => void }) {
  const { findings } = desk.view;
  if (!desk.ready) return <Loading what="the pages" />;
  return (
    <View style={{ gap: 10 }} testID="gate-check">
      <Heading>Gate check</Heading>
      {findings.length === 0 ? (
        <Note tone="good" title="Nothing is missing" testID="check-clean">
          {`Every page and every person is covered. ${desk.bench.what === 'form' ? 'It can go on the shelf.' : 'You can send.'}`}
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
      {findings.length > SHOWN ? (
        <Small>{`And ${findings.length - SHOWN} more. They appear as you clear these.`}</Small>
      ) : null}
    </View>
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
        <Small>{stops ? 'Stops sending' : 'A warning'}</Small>
      </Pressable>
      {finding.mend ? (
        <Button kind="quiet" onPress={onMend} style={{ alignSelf: 'flex-start' }}>
          {finding.mend.label}
        </Button>
      ) : null}
    </View>
  );
}
