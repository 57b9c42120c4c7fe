/** Photographs of a paper's pages: examined in the browser, uploaded one after another, and made into one paper. */
import { useEffect, useRef, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { DocumentView } from '@gatepath/contract';
import { cornersAsText, sheetIn, troubleOf, type Corners, type PhotoTrouble } from '@gatepath/core/scan';
import { itemAt } from '@gatepath/core/sure';
import { keys } from '../../api/keys';
import { call, newId, uploadFile } from '../../api/client';
import { TEXT } from './words';

export interface Photograph {
  id: string;
  file: File;
  /** Address of the picture in this browser. */
  url: string;
  width: number;
  height: number;
  corners: Corners;
  trouble: PhotoTrouble | null;
  /** Once it is uploaded. */
  document: DocumentView | null;
}

/** Longest side of the examined picture, in dots. */
const LOOK = 1000;

/** Finds the sheet in a picture, and whether it can be read. @throws Error if the browser cannot show the picture */
async function readPhotograph(file: File): Promise<Pick<Photograph, 'width' | 'height' | 'corners' | 'trouble'>> {
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' });
  const scale = Math.min(1, LOOK / Math.max(bitmap.width, bitmap.height));
  const width = Math.max(1, Math.round(bitmap.width * scale));
  const height = Math.max(1, Math.round(bitmap.height * scale));
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const context = canvas.getContext('2d');
  if (!context) throw new Error(TEXT.cannotShowPictures);
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  const { data } = context.getImageData(0, 0, width, height);
  const gray = new Uint8Array(width * height);
  for (let i = 0; i < gray.length; i++)
    gray[i] = 0.299 * itemAt(data, 4 * i) + 0.587 * itemAt(data, 4 * i + 1) + 0.114 * itemAt(data, 4 * i + 2);
  const picture = { width, height, data: gray };
  return { width, height, corners: sheetIn(picture), trouble: troubleOf(picture) };
}

/** Uploads photographs in order and makes one paper of them; what an earlier try uploaded is not uploaded again. */
async function sendAsOne(
  dealId: string,
  name: string,
  photos: Photograph[],
  told: (i: number, document: DocumentView) => void,
): Promise<void> {
  const ids: string[] = [];
  for (const [i, photo] of photos.entries()) {
    const query = { corners: cornersAsText(photo.corners) };
    const document = photo.document ?? (await uploadFile('addDocument', photo.file, { params: { dealId }, query }));
    told(i, document);
    ids.push(document.id);
  }
  if (ids.length === 1) {
    await call('setDocument', { params: { documentId: itemAt(ids, 0) }, body: { name } });
    return;
  }
  const parts = ids.map((documentId) => ({ documentId, page: 1, turn: 0 as const }));
  await call('composeDocument', { params: { dealId }, body: { name, parts, replaces: ids, further: [] } });
}

/** Returns a function for addresses of pictures, valid while the screen is open. */
function useAddresses(): (file: File) => string {
  const urls = useRef(new Set<string>());
  useEffect(() => {
    const kept = urls.current;
    return () => kept.forEach((url) => URL.revokeObjectURL(url));
  }, []);
  return (file) => {
    const url = URL.createObjectURL(file);
    urls.current.add(url);
    return url;
  };
}

function oneEarlier(all: Photograph[], id: string): Photograph[] {
  const at = all.findIndex((x) => x.id === id);
  if (at < 1) return all;
  const next = [...all];
  next.splice(at - 1, 2, itemAt(all, at), itemAt(all, at - 1));
  return next;
}

/**
 * Returns the photographs of one paper, and the functions that add, order, correct and send them.
 *
 * @param dealId  where the paper is added
 */
export function usePhotographs(dealId: string) {
  const client = useQueryClient();
  const [photos, setPhotos] = useState<Photograph[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  /** How many are uploaded while a paper is being made; null otherwise. */
  const [sent, setSent] = useState<number | null>(null);
  const addressOf = useAddresses();
  const change = (id: string, more: Partial<Photograph>) =>
    setPhotos((all) => all.map((x) => (x.id === id ? { ...x, ...more } : x)));

  const looked = async (file: File): Promise<Photograph | null> => {
    const found = await readPhotograph(file).catch(() => null);
    if (found) return { id: newId(), file, url: addressOf(file), document: null, ...found };
    setProblem(TEXT.isNotAPictureThat(file.name));
    return null;
  };
  const add = async (files: File[]) => {
    setProblem(null);
    for (const file of files) {
      const one = await looked(file);
      if (one) setPhotos((all) => [...all, one]);
    }
  };
  /** Replaces a page by a new photograph. */
  const again = async (id: string, file: File) => {
    setProblem(null);
    const one = await looked(file);
    if (one) change(id, { ...one, id });
  };
  const drop = (id: string) => setPhotos((all) => all.filter((x) => x.id !== id));
  const earlier = (id: string) => setPhotos((all) => oneEarlier(all, id));

  const make = async (name: string) => {
    setProblem(null);
    setSent(0);
    try {
      await sendAsOne(dealId, name, photos, (i, document) => {
        change(itemAt(photos, i).id, { document });
        setSent(i + 1);
      });
      setPhotos([]);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    } finally {
      setSent(null);
      await client.invalidateQueries({ queryKey: keys.deal(dealId) });
    }
  };
  return {
    photos,
    problem,
    sent,
    add,
    again,
    drop,
    earlier,
    make,
    setCorners: (id: string, corners: Corners) => change(id, { corners, document: null }),
  };
}
