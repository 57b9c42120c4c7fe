/** A page as a sheet of paper: its picture, sharp for the screen, and anything laid over it. */
import { useState, type ReactNode } from 'react';
import { Image, PixelRatio, View } from 'react-native';
import { PAGE_DPIS } from '@gatepath/contract/limits';
import { usePalette } from '../../ui/hooks';
import { Body } from '../../ui/text';
import { lastOf } from '@gatepath/core/sure';
import { TEXT } from './words';

export interface SheetPage {
  width: number;
  height: number;
}

interface Props {
  page: SheetPage;
  /** Address of the page's picture without its dpi. */
  url: string;
  /** Width on the screen, in pixels of the layout. */
  width: number;
  label: string;
  /** What to say if the picture cannot be loaded. */
  failing?: string;
  /** Called when the picture is shown, and when it cannot be loaded. */
  onPicture?: (is: 'shown' | 'missing') => void;
  children?: ReactNode;
  testID?: string;
}

/** Returns the picture's resolution for a width on this screen: the next step up, so that type stays sharp. */
export function dpiFor(page: SheetPage, width: number): number {
  const wanted = (width * PixelRatio.get() * 72) / page.width;
  return PAGE_DPIS.find((d) => d >= wanted * 0.95) ?? lastOf(PAGE_DPIS);
}

const FAILING = TEXT.pageNotLoaded;

export function Sheet({ page, url, width, label, failing = FAILING, onPicture, children, testID }: Props) {
  const p = usePalette();
  const height = (width * page.height) / page.width;
  const uri = `${url}?dpi=${dpiFor(page, width)}`;
  const [failed, setFailed] = useState<string | null>(null);
  return (
    <View testID={testID} style={{ width, height, backgroundColor: '#FFFFFF', boxShadow: `0 1px 10px ${p.rule}` }}>
      {failed === uri ? (
        <Body style={{ padding: 24, color: '#1E2A32' }}>{failing}</Body>
      ) : (
        <Image
          source={{ uri }}
          style={{ width, height }}
          resizeMode="stretch"
          accessibilityLabel={label}
          onLoad={() => onPicture?.('shown')}
          onError={() => {
            setFailed(uri);
            onPicture?.('missing');
          }}
        />
      )}
      {children}
    </View>
  );
}
