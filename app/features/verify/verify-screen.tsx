/** A public page: drop a sealed PDF to see whether it is whole, and who signed what when. */
import { useDropzone } from 'react-dropzone';
import type { CopyVerification } from '@gatepath/contract';
import { count } from '@gatepath/core/text';
import { useAct } from '../../api/act';
import { uploadFile } from '../../api/client';
import { Brand } from '../../ui/brand';
import { usePalette } from '../../ui/hooks';
import { Icon } from '../../ui/icon';
import { ActError, Button, Card, Note, Page } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export function VerifyScreen() {
  const p = usePalette();
  const check = useAct((file: File) => uploadFile('check', file, {}));
  const drop = useDropzone({
    multiple: false,
    noClick: true,
    noKeyboard: true,
    onDrop: ([file]) => file && check.mutate(file),
  });
  return (
    <Page max={760}>
      <Brand />
      <Title>{TEXT.verifyASealedCopy}</Title>
      <Body>{TEXT.whatVerifyingDoes}</Body>
      <div {...drop.getRootProps()} data-testid="drop">
        <input {...drop.getInputProps()} aria-label={TEXT.chooseASealedPdf} data-testid="check-file" />
        <Stack
          gap={12}
          align="center"
          style={{
            borderWidth: 2,
            borderStyle: 'dashed',
            borderColor: drop.isDragActive ? p.brick : p.slate,
            borderRadius: 16,
            padding: 24,
            backgroundColor: p.sheet,
          }}
        >
          <Body center>{drop.isDragActive ? TEXT.dropItHere : TEXT.dropThePdfHere}</Body>
          <Button kind="main" busy={check.isPending} onPress={drop.open} testID="choose-file">
            {TEXT.chooseAFile}
          </Button>
        </Stack>
      </div>
      <ActError of={check} />
      {check.data ? <Outcome check={check.data} /> : null}
    </Page>
  );
}

function Outcome({ check }: { check: CopyVerification }) {
  const last = check.revisions[check.revisions.length - 1];
  return (
    <>
      <Note
        tone={check.whole ? 'good' : 'stop'}
        testID="outcome"
        title={
          check.whole ? TEXT.isWholeNothingWasChanged(check.fileName) : TEXT.isNotWhole(check.fileName, check.why ?? '')
        }
      >
        {check.whole && last
          ? TEXT.sealedBy(
              last.signer ?? '',
              last.selfMade ? TEXT.withASelfMadeCertificate : '',
              check.ours ? TEXT.thisServerMadeThatSeal : '',
            )
          : TEXT.doNotRely}
      </Note>
      {check.revisions.length ? (
        <Card>
          <Heading>{count(check.revisions.length, 'seal')}</Heading>
          <Small>{TEXT.eachSealCoversTheFile}</Small>
          {check.revisions.map((r) => (
            <RevisionLine key={r.n} revision={r} />
          ))}
        </Card>
      ) : null}
    </>
  );
}

function RevisionLine({ revision: r }: { revision: CopyVerification['revisions'][number] }) {
  const p = usePalette();
  const at = r.at
    ? new Intl.DateTimeFormat('en-US', { dateStyle: 'medium', timeStyle: 'long', timeZone: 'utc' }).format(
        new Date(r.at),
      )
    : TEXT.noTimeRecorded;
  return (
    <Row testID="revision" gap={8} align="stretch" style={{ paddingVertical: 6 }}>
      <Icon name={r.whole ? 'check' : 'alert'} color={r.whole ? p.moss : p.wine} />
      <Stack grow>
        <Strong>{`${r.n}. ${r.name || TEXT.unnamed}`}</Strong>
        <Body>{r.reason}</Body>
        <Small>{TEXT.bytesTo(at, r.pages ? `, ${count(r.pages, 'page')}` : '', r.end.toLocaleString('en-US'))}</Small>
        {r.whole ? null : <Small tone="stop">{TEXT.notWhole(r.why)}</Small>}
        <Small style={{ fontSize: 12 }}>{TEXT.sha(r.sha256)}</Small>
      </Stack>
    </Row>
  );
}
