/** Setting the hand once: typed in a script face, drawn, or from a photo. */
import { useRef, useState } from 'react';
import { View } from 'react-native';
import { Svg } from '../../ui/svg';
import type { SigningView } from '@gatepath/contract';
import { useFiles } from './files';
import { inkOf } from '@gatepath/core/inks';
import { showHand } from '@gatepath/core/filling';
import type { Drawing, Hand, Picture, ScriptFace } from '@gatepath/core/packet';
import { Input } from '../../ui/input';
import { usePalette } from '../../ui/hooks';
import { Switch } from '../../ui/switch';
import { Button, Card, Choice, Note, Page } from '../../ui/pieces';
import { Body, Strong, Title } from '../../ui/text';
import { Shown } from '../pages/fills';
import { useHandFonts } from '../pages/hand-fonts';
import { DrawPad } from './draw-pad';
import { WhoIs } from './parts';
import { useSay } from './say';
import type { Signing } from './use-signing';
import { Wrong } from './wrong';
import { itemAt } from '@gatepath/core/sure';
import { Radio, RadioGroup } from '../../ui/radio';
import { Stack } from '../../ui/layout';

interface Props {
  token: string;
  signing: Signing;
  view: SigningView;
  onDone: () => void;
}

type Form = Hand['form'];

/** Returns the state of the hand that is being made, in each of its forms: typed, drawn and uploaded. */
function useHand(view: SigningView) {
  const t = useSay();
  const was = view.hand ?? view.savedHand;
  const [form, setForm] = useState<Form>(was?.form ?? 'typed');
  const [name, setName] = useState(was?.form === 'typed' ? was.signature : view.me.name);
  const [initials, setInitials] = useState(was?.form === 'typed' ? was.initials : view.suggestedInitials);
  const [face, setFace] = useState<ScriptFace>(was?.form === 'typed' ? was.face : itemAt(view.faces, 0));
  const [signature, setSignature] = useState<Drawing | null>(was?.form === 'drawn' ? was.signature : null);
  const [short, setShort] = useState<Drawing | null>(was?.form === 'drawn' ? was.initials : null);
  const [pictures, setPictures] = useState<{ signature: Picture | null; initials: Picture | null }>(
    was?.form === 'picture' ? was : { signature: null, initials: null },
  );
  const initialsText = view.suggestedInitials.slice(0, 8);
  /** Returns the hand, or what is missing of it. */
  const made = (): Hand | string => {
    if (form === 'typed')
      return name.trim() && initials.trim()
        ? { form, face, signature: name.trim(), initials: initials.trim() }
        : t('sign.hand.need_both');
    if (form === 'drawn') {
      if (!signature) return t('sign.hand.need_signature');
      return short ? { form, signature, initials: short, initialsText } : t('sign.hand.need_initials');
    }
    return pictures.signature && pictures.initials
      ? { form, signature: pictures.signature, initials: pictures.initials, initialsText }
      : t('sign.hand.need_pictures');
  };
  return {
    form,
    setForm,
    typed: { name, setName, initials, setInitials, face, setFace },
    drawn: { signature, setSignature, short, setShort },
    pictures,
    setPictures,
    made,
  };
}
type HandForm = ReturnType<typeof useHand>;

export function HandStep({ token, signing, view, onDone }: Props) {
  const t = useSay();
  const hand = useHand(view);
  const [keep, setSaveHand] = useState(view.savedHand !== null);
  const [problem, setProblem] = useState<string | null>(null);
  const save = () => {
    const made = hand.made();
    if (typeof made === 'string') return setProblem(made);
    setProblem(null);
    signing.setHand(made, keep);
    onDone();
  };
  return (
    <Page max={560}>
      <WhoIs view={view} />
      <Title>{t('sign.hand.title')}</Title>
      <Body>{t(view.savedHand && !view.hand ? 'sign.hand.kept' : 'sign.hand.body')}</Body>
      <Choice
        wrap
        label={t('sign.hand.how')}
        value={hand.form}
        options={[
          { value: 'typed', label: t('sign.hand.type') },
          { value: 'drawn', label: t('sign.hand.draw') },
          { value: 'picture', label: t('sign.hand.picture') },
        ]}
        onChange={hand.setForm}
      />
      <Card gap={12}>
        {hand.form === 'typed' ? (
          <Typed hand={hand} view={view} />
        ) : hand.form === 'drawn' ? (
          <Drawn hand={hand} view={view} />
        ) : (
          <Pictured hand={hand} token={token} signing={signing} />
        )}
      </Card>
      <Switch
        large
        on={keep}
        label={t('sign.hand.keep', { firmName: view.firmName })}
        hint={t('sign.hand.keep.why')}
        onChange={setSaveHand}
        testID="keep-hand"
      />
      {problem ? <Note tone="warn" title={problem} testID="hand-problem" /> : null}
      <Button large kind="main" onPress={save} testID="save-hand">
        {t('sign.hand.use')}
      </Button>
    </Page>
  );
}

function Typed({ hand: { typed }, view }: { hand: HandForm; view: SigningView }) {
  const t = useSay();
  const { name, initials, face, setFace } = typed;
  return (
    <>
      <Input label={t('sign.hand.name')} value={name} onChangeText={typed.setName} maxLength={80} testID="hand-name" />
      <Input
        label={t('sign.hand.initials')}
        value={initials}
        onChangeText={typed.setInitials}
        maxLength={8}
        testID="hand-initials"
      />
      <Faces
        faces={view.faces}
        face={face}
        onFace={setFace}
        name={name}
        initials={initials}
        color={inkOf(view.me.ink).color}
      />
    </>
  );
}

function Drawn({ hand: { drawn }, view }: { hand: HandForm; view: SigningView }) {
  const t = useSay();
  const { color } = inkOf(view.me.ink);
  return (
    <>
      <DrawPad
        label={t('sign.hand.draw_signature')}
        height={150}
        value={drawn.signature}
        color={color}
        onChange={drawn.setSignature}
        testID="pad-signature"
      />
      <DrawPad
        label={t('sign.hand.draw_initials')}
        height={120}
        value={drawn.short}
        color={color}
        onChange={drawn.setShort}
        testID="pad-initials"
      />
    </>
  );
}

function Pictured({ hand, token, signing }: { hand: HandForm } & Pick<Props, 'token' | 'signing'>) {
  const t = useSay();
  return (
    <>
      <Body>{t('sign.hand.picture_how')}</Body>
      {(['signature', 'initials'] as const).map((as) => (
        <PictureField
          key={as}
          token={token}
          signing={signing}
          as={as}
          value={hand.pictures[as]}
          onChange={(picture) => hand.setPictures((all) => ({ ...all, [as]: picture }))}
        />
      ))}
    </>
  );
}

/** The script faces that can write the name, each shown with it. */
function Faces({
  faces,
  face,
  onFace,
  name,
  initials,
  color,
}: {
  faces: ScriptFace[];
  face: ScriptFace;
  onFace: (f: ScriptFace) => void;
  name: string;
  initials: string;
  color: string;
}) {
  const p = usePalette();
  const t = useSay();
  return (
    <RadioGroup
      label={t('sign.hand.writing')}
      value={face}
      onChange={(v) => {
        const chosen = faces.find((f) => f === v);
        if (chosen) onFace(chosen);
      }}
      style={{ gap: 8 }}
    >
      {faces.map((f) => {
        const hand: Hand = { form: 'typed', face: f, signature: name || ' ', initials: initials || ' ' };
        const on = f === face;
        return (
          <Radio
            key={f}
            value={f}
            label={t('sign.hand.face', { face: t(`sign.face.${f}`), name, initials })}
            testID={`face-${f}`}
            style={{
              borderWidth: on ? 2.5 : 1.5,
              borderColor: on ? p.brick : p.rule,
              borderRadius: 12,
              backgroundColor: '#FFFFFF',
              flexDirection: 'row',
              alignItems: 'center',
              minHeight: 64,
              paddingHorizontal: 10,
              overflow: 'hidden',
            }}
          >
            <Preview shows={showHand(hand, 'signature', name)} kind="signature" width={200} color={color} />
            <Stack grow />
            <Preview shows={showHand(hand, 'initials', name)} kind="initials" width={80} color={color} />
          </Radio>
        );
      })}
    </RadioGroup>
  );
}

/** A photo of writing: chosen, freed of its paper by the server, and shown as it will look. */
// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function PictureField({
  token,
  signing,
  as,
  value,
  onChange,
}: {
  token: string;
  signing: Signing;
  as: 'signature' | 'initials';
  value: Picture | null;
  onChange: (p: Picture) => void;
}) {
  const p = usePalette();
  const files = useFiles(token);
  const t = useSay();
  const input = useRef<HTMLInputElement>(null);
  const [error, setError] = useState<Error | null>(null);
  const [busy, setBusy] = useState(false);
  const label = t(as === 'signature' ? 'sign.hand.picture_signature' : 'sign.hand.picture_initials');
  const add = (file: File) => {
    setBusy(true);
    setError(null);
    signing.addPicture
      .mutateAsync(file)
      .then(onChange, (e: Error) => setError(e))
      .finally(() => setBusy(false));
  };
  return (
    <Stack gap={8}>
      <Strong>{t(as === 'signature' ? 'kind.signature' : 'kind.initials')}</Strong>
      {value ? (
        <View style={{ borderWidth: 1, borderColor: p.rule, borderRadius: 12, backgroundColor: '#FFFFFF', padding: 8 }}>
          <Svg
            width="100%"
            height={90}
            viewBox={`0 0 ${value.width} ${value.height}`}
            role="img"
            aria-label={t(as === 'signature' ? 'kind.signature' : 'kind.initials')}
          >
            <Shown
              shows={{ form: 'picture', picture: value, spoken: '' }}
              kind={as}
              rect={{ x: 0, y: 0, w: value.width, h: value.height }}
              color="#000"
              pictureUrl={files.picture}
            />
          </Svg>
        </View>
      ) : null}
      <input
        ref={input}
        type="file"
        accept="image/png,image/jpeg,image/webp"
        aria-label={label}
        data-testid={`picture-${as}`}
        style={{ display: 'none' }}
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) add(file);
          e.target.value = '';
        }}
      />
      {error ? <Wrong error={error} /> : null}
      <Button busy={busy} onPress={() => input.current?.click()}>
        {value ? t('sign.hand.picture_other') : label}
      </Button>
    </Stack>
  );
}

export function Preview({
  shows,
  kind,
  width,
  color,
  pictureUrl,
}: {
  shows: ReturnType<typeof showHand>;
  kind: 'signature' | 'initials';
  width: number;
  color: string;
  pictureUrl?: (sha256: string) => string;
}) {
  const height = 50;
  const ready = useHandFonts(shows.form === 'typed' ? [shows.face] : [], shows.form === 'typed' ? shows.text : '');
  if (!ready) return <View style={{ width, height }} />;
  return (
    <Svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden>
      <Shown
        shows={shows}
        kind={kind}
        rect={{ x: 2, y: 2, w: width - 4, h: height - 4 }}
        color={color}
        pictureUrl={pictureUrl}
      />
    </Svg>
  );
}
