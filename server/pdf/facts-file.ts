/** Stored facts of a document's pages: JSON, compressed with gzip, named by its fingerprint. */
import { gunzip } from 'node:zlib';
import { promisify } from 'node:util';
import { LRUCache } from 'lru-cache';
import type { DocumentFacts } from '@gatepath/core/packet';
import { unpackFacts, type PackedFacts } from '@gatepath/contract';
import { readStored } from '../files/stored';

/** A document's facts in a file. */
export interface FactsFile {
  id: string;
  name: string;
  file: string;
  /** The last day of the form it was made from, if that has passed. */
  formEnded?: string;
}

const unzip = promisify(gunzip);
/** More than the facts of the largest possible document. */
const MOST = 512 * 1024 * 1024;
/** Cached facts: a desk asks for the same documents again and again. */
const kept = new LRUCache<string, DocumentFacts>({ max: 40 });

/** Returns the facts of a file, packed as they are sent. */
export async function packedFactsIn(file: string): Promise<PackedFacts> {
  const facts: PackedFacts = JSON.parse(
    (await unzip(await readStored(file), { maxOutputLength: MOST })).toString('utf8'),
  );
  return facts;
}

/** Returns the facts of documents for the core. */
export function factsIn(documents: FactsFile[]): Promise<DocumentFacts[]> {
  return Promise.all(
    documents.map(async ({ id, name, file, formEnded }) => {
      const key = `${id}:${name}:${file}:${formEnded ?? ''}`;
      const known = kept.get(key);
      if (known) return known;
      const facts = { ...unpackFacts(id, name, await packedFactsIn(file)), ...(formEnded ? { formEnded } : {}) };
      kept.set(key, facts);
      return facts;
    }),
  );
}
