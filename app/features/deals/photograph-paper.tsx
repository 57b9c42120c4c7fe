/** Photographing a paper: each page with its corners to correct, in order, made into one paper. */
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { WHOLE, isSheet, type Corner, type Corners } from '@gatepath/core/scan';
import { count } from '@gatepath/core/text';
import { Input } from '../../ui/input';
import { usePalette } from '../../ui/hooks';
import { Button, IconButton, Note } from '../../ui/pieces';
import { Small, Strong } from '../../ui/text';
import type { Photograph, usePhotographs } from './photographs';
import { itemAt } from '@gatepath/core/sure';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

type Photographs = ReturnType<typeof usePhotographs>;

/** Opens the camera on a phone, and the file picker elsewhere. */
export function useCamera(label: string, testID: string, onFiles: (files: File[]) => void) {
  const input = useRef<HTMLInputElement>(null);
  const field = (
    <input
      ref={input}
      type="file"
      accept="image/jpeg,image/png,image/webp"
      capture="environment"
      multiple
      aria-label={label}
      data-testid={testID}
      style={{ display: 'none' }}
      onChange={(e) => {
        onFiles(Array.from(e.target.files ?? []));
        e.target.value = '';
      }}
    />
  );
  return { field, open: () => input.current?.click() };
}

export function PhotographPaper({ photographs }: { photographs: Photographs }) {
  const { photos, problem, sent, add, make } = photographs;
  const [name, setName] = useState('');
  const camera = useCamera(TEXT.photographAPage, 'photograph-input', (files) => void add(files));
  return (
    <Stack gap={12}>
      {camera.field}
      {photos.map((photo, i) => (
        <PhotographPage key={photo.id} photo={photo} n={i + 1} of={photos.length} photographs={photographs} />
      ))}
      {problem ? <Note tone="stop" title={problem} testID="photograph-problem" /> : null}
      <Button icon="camera" onPress={camera.open} disabled={sent !== null} testID="photograph">
        {photos.length ? TEXT.photographTheNextPage : TEXT.photographAPaper}
      </Button>
      {photos.length ? (
        <>
          <Input
            label={TEXT.whatThePaperIsCalled}
            value={name}
            onChangeText={setName}
            maxLength={120}
            testID="photograph-name"
          />
          <Button
            kind="main"
            disabled={sent !== null}
            onPress={() => void make(name.trim() || TEXT.photographedPaper)}
            testID="photograph-make"
          >
            {sent === null
              ? TEXT.makeOnePaper(count(photos.length, 'page'))
              : TEXT.sendingOf(Math.min(sent + 1, photos.length), photos.length)}
          </Button>
        </>
      ) : null}
    </Stack>
  );
}

const TROUBLE = {
  dark: TEXT.thisPhotographIsTooDark,
  blurred: TEXT.thisPhotographIsBlurredHold,
};

function PhotographPage({
  photo,
  n,
  of,
  photographs,
}: {
  photo: Photograph;
  n: number;
  of: number;
  photographs: Photographs;
}) {
  const { drop, earlier, again, setCorners, sent } = photographs;
  const camera = useCamera(TEXT.takePageAgain(n), `photograph-again-${n}`, ([file]) => {
    if (file) void again(photo.id, file);
  });
  const whole = photo.corners.every((c, i) => c.x === WHOLE[i]?.x && c.y === WHOLE[i]?.y);
  return (
    <Stack testID="photograph-page" gap={8}>
      {camera.field}
      <Row gap={4}>
        <Stack grow>
          <Strong>{TEXT.pageOfCount(n, of)}</Strong>
        </Stack>
        {n > 1 ? (
          <IconButton
            name="arrow-up"
            label={TEXT.movePageOneEarlier(n)}
            disabled={sent !== null}
            onPress={() => earlier(photo.id)}
          />
        ) : null}
        <IconButton name="close" label={TEXT.leaveOutPage(n)} disabled={sent !== null} onPress={() => drop(photo.id)} />
      </Row>
      {photo.trouble ? (
        <Note
          tone="warn"
          title={TROUBLE[photo.trouble]}
          testID="photograph-trouble"
          action={
            <Button kind="quiet" onPress={camera.open}>
              {TEXT.takeItAgain}
            </Button>
          }
        />
      ) : null}
      <CornerPicture photo={photo} n={n} onCorners={(corners) => setCorners(photo.id, corners)} />
      <Small>{whole ? TEXT.theWholePictureIsUsed : TEXT.dragTheCorners}</Small>
    </Stack>
  );
}

const NAMES = [TEXT.topLeft, TEXT.topRight, TEXT.bottomRight, TEXT.bottomLeft] as const;
/** How far one press of an arrow key moves a corner, as a share of the picture; with Shift ten times as far. */
const STEP = 0.002;
const within = (v: number) => Math.min(1, Math.max(0, v));

/** The picture with the outline of its sheet, and a handle at each corner: for fingers, mice and arrow keys. */
function CornerPicture({
  photo,
  n,
  onCorners,
}: {
  photo: Photograph;
  n: number;
  onCorners: (corners: Corners) => void;
}) {
  const p = usePalette();
  const frame = useRef<HTMLDivElement>(null);
  const { corners } = photo;
  const put = (i: number, corner: Corner) => {
    const next = corners.map((c, k) => (k === i ? { x: within(corner.x), y: within(corner.y) } : c)) as Corners;
    if (isSheet(next)) onCorners(next);
  };
  const drag = (i: number) => (e: PointerEvent) => {
    const box = frame.current?.getBoundingClientRect();
    if (!box || !e.currentTarget.hasPointerCapture(e.pointerId)) return;
    put(i, { x: (e.clientX - box.left) / box.width, y: (e.clientY - box.top) / box.height });
  };
  const keys = (i: number, c: Corner) => (e: KeyboardEvent) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (!by) return;
    e.preventDefault();
    const step = e.shiftKey ? 10 * STEP : STEP;
    put(i, { x: c.x + (by[0] ?? 0) * step, y: c.y + (by[1] ?? 0) * step });
  };
  return (
    // Room around the picture, so that handles at its very corners can be held.
    <div style={{ padding: 14, background: p.bench, borderRadius: 10 }}>
      <div
        ref={frame}
        style={{ position: 'relative', touchAction: 'none', maxWidth: 420, margin: '0 auto', lineHeight: 0 }}
      >
        <img
          src={photo.url}
          alt={TEXT.photographOfPage(n)}
          draggable={false}
          style={{ width: '100%', aspectRatio: `${photo.width} / ${photo.height}`, userSelect: 'none' }}
        />
        <Outline corners={corners} />
        {corners.map((c, i) => (
          <Handle
            key={NAMES[i]}
            corner={c}
            label={TEXT.cornerOfPageAcrossDown(itemAt(NAMES, i), n, Math.round(c.x * 100), Math.round(c.y * 100))}
            testID={`corner-${n}-${i}`}
            onDrag={drag(i)}
            onKeyDown={keys(i, c)}
          />
        ))}
      </div>
    </div>
  );
}

function Handle(o: {
  corner: Corner;
  label: string;
  testID: string;
  onDrag: (e: PointerEvent) => void;
  onKeyDown: (e: KeyboardEvent) => void;
}) {
  const p = usePalette();
  return (
    <button
      type="button"
      aria-label={o.label}
      data-testid={o.testID}
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={o.onDrag}
      onKeyDown={o.onKeyDown}
      style={{
        position: 'absolute',
        left: `calc(${o.corner.x * 100}% - 22px)`,
        top: `calc(${o.corner.y * 100}% - 22px)`,
        width: 44,
        height: 44,
        border: 'none',
        background: 'transparent',
        cursor: 'grab',
        padding: 0,
      }}
    >
      <span
        style={{
          display: 'block',
          width: 18,
          height: 18,
          margin: 13,
          borderRadius: 9,
          border: `3px solid ${p.brick}`,
          background: '#fff',
          boxSizing: 'border-box',
        }}
      />
    </button>
  );
}

/** The outline of the sheet over its picture. */
function Outline({ corners }: { corners: Corners }) {
  const p = usePalette();
  const outline = corners.map((c) => `${c.x * 100},${c.y * 100}`).join(' ');
  return (
    <svg
      viewBox="0 0 100 100"
      preserveAspectRatio="none"
      aria-hidden
      style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
    >
      <polygon
        points={outline}
        fill={p.brick}
        fillOpacity={0.12}
        stroke={p.brick}
        strokeWidth={2}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
