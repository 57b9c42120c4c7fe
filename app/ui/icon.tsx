/**
 * Icons as paths, so that only those in use are shipped. They come with the first chunk of a signing link: an icon of
 * one screen of the office alone is given there by its path.
 */
import {
  mdiAccountPlusOutline,
  mdiAlertCircleOutline,
  mdiArrowDown,
  mdiArrowLeft,
  mdiArrowRight,
  mdiMinus,
  mdiArrowUp,
  mdiContentCopy,
  mdiContentPaste,
  mdiDotsHorizontal,
  mdiEyeOutline,
  mdiRedo,
  mdiRotateRight,
  mdiViewGridOutline,
  mdiCameraOutline,
  mdiCheck,
  mdiChevronDown,
  mdiChevronLeft,
  mdiChevronRight,
  mdiClose,
  mdiDownload,
  mdiEmailOutline,
  mdiFileDocumentPlusOutline,
  mdiLockOutline,
  mdiMagnify,
  mdiMagnifyMinusOutline,
  mdiMagnifyPlusOutline,
  mdiPencilOutline,
  mdiPhoneOutline,
  mdiPlus,
  mdiTrashCanOutline,
  mdiUndo,
} from '@mdi/js';
import { Svg, Path } from './svg';
import { usePalette } from './hooks';
import { isKeyOf } from '@gatepath/core/sure';

const PATHS = {
  'account-plus': mdiAccountPlusOutline,
  alert: mdiAlertCircleOutline,
  'arrow-down': mdiArrowDown,
  'arrow-left': mdiArrowLeft,
  'arrow-right': mdiArrowRight,
  minus: mdiMinus,
  'arrow-up': mdiArrowUp,
  check: mdiCheck,
  'chevron-down': mdiChevronDown,
  'menu-down': mdiChevronDown,
  'chevron-left': mdiChevronLeft,
  'chevron-right': mdiChevronRight,
  close: mdiClose,
  download: mdiDownload,
  email: mdiEmailOutline,
  'file-plus': mdiFileDocumentPlusOutline,
  lock: mdiLockOutline,
  magnify: mdiMagnify,
  'zoom-out': mdiMagnifyMinusOutline,
  'zoom-in': mdiMagnifyPlusOutline,
  camera: mdiCameraOutline,
  pencil: mdiPencilOutline,
  phone: mdiPhoneOutline,
  plus: mdiPlus,
  trash: mdiTrashCanOutline,
  undo: mdiUndo,
  redo: mdiRedo,
  copy: mdiContentCopy,
  paste: mdiContentPaste,
  more: mdiDotsHorizontal,
  eye: mdiEyeOutline,
  turn: mdiRotateRight,
  pages: mdiViewGridOutline,
} as const;

type IconName = keyof typeof PATHS;

/** An icon by its name in the table, or by the path of it in a square of 24 units. */
export type IconOf = IconName | { path: string };

export function Icon({ name, size = 22, color }: { name: IconOf; size?: number; color?: string }) {
  const p = usePalette();
  return (
    <Svg width={size} height={size} viewBox="0 0 24 24" aria-hidden>
      <Path d={typeof name === 'string' ? PATHS[name] : name.path} fill={color ?? p.ink} />
    </Svg>
  );
}

/** Returns an icon for Paper's `settings.icon`; unknown names show nothing. */
export function paperIcon(props: { name: unknown; size: number; color?: string }) {
  const name = String(props.name);
  if (!isKeyOf(PATHS, name)) return null;
  return (
    <Svg width={props.size} height={props.size} viewBox="0 0 24 24" aria-hidden>
      <Path d={PATHS[name]} fill={props.color ?? '#1E2A32'} />
    </Svg>
  );
}
