/** Files being uploaded to a deal, each with its own progress and error. */
import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { DocumentView } from '@gatepath/contract';
import { MAX_FILE } from '@gatepath/contract/limits';
import { keys } from '../../api/keys';
import { ApiError, newId, uploadFile } from '../../api/client';
import { TEXT } from './words';

export interface Upload {
  id: string;
  name: string;
  /** The share uploaded, 0 to 1; the server reads the pages afterwards. */
  part: number;
  problem: string | null;
  file: File;
}

/** Maximum number of tries of a busy server, and the pause between them. */
const TRIES = 20;
const PAUSE_MS = 3_000;

/** Does something again while the server is busy. */
export async function whenFree<T>(work: () => Promise<T>): Promise<T> {
  for (let n = 1; ; n++)
    try {
      return await work();
    } catch (error) {
      if (!(error instanceof ApiError && error.status === 503) || n >= TRIES) throw error;
      await new Promise((r) => setTimeout(r, PAUSE_MS));
    }
}

/**
 * Returns the uploads in progress and the function that starts one.
 *
 * @param onAdded  called for each paper once it is in the deal; its pages are read from then on
 */
export function useUploads(dealId: string, onAdded?: (doc: DocumentView) => void) {
  const [uploads, setUploads] = useState<Upload[]>([]);
  const client = useQueryClient();
  const change = (id: string, more: Partial<Upload>) =>
    setUploads((all) => all.map((u) => (u.id === id ? { ...u, ...more } : u)));
  const drop = (id: string) => setUploads((all) => all.filter((u) => u.id !== id));

  const start = async (upload: Upload) => {
    change(upload.id, { part: 0, problem: null });
    if (upload.file.size > MAX_FILE) {
      change(upload.id, {
        problem: TEXT.isLargerThan50Mb(upload.name),
      });
      return;
    }
    try {
      const doc = await whenFree(() =>
        uploadFile('addDocument', upload.file, {
          params: { dealId },
          onProgress: (part) => change(upload.id, { part }),
        }),
      );
      onAdded?.(doc);
      drop(upload.id);
      await client.invalidateQueries({ queryKey: keys.deal(dealId) });
    } catch (error) {
      change(upload.id, { problem: error instanceof Error ? error.message : String(error) });
    }
  };

  const add = async (files: File[]) => {
    const fresh = files.map((file) => ({ id: newId(), name: file.name, part: 0, problem: null, file }));
    setUploads((all) => [...all, ...fresh]);
    // One after another: a phone's connection carries one file better than five at once.
    for (const u of fresh) await start(u);
  };
  return { uploads, add, drop, retry: start };
}
