/** One file from a multipart form, as a stream; every request is answered, whatever was sent. */
import type { Readable } from 'node:stream';
import { Busboy, type BusboyFileStream } from '@fastify/busboy';
import type { FastifyRequest } from 'fastify';
import { MAX_FILE } from '@gatepath/contract';
import { fileNameOf } from '@gatepath/core/text';
import { Problem } from '../problem';

/** A file that is being uploaded. */
export interface Upload {
  /** Safe to show: one line, without control characters. It says nothing about the file's type. */
  name: string;
  stream: Readable & { truncated?: boolean };
}

/** How long a sender may be silent in the middle of a file, in milliseconds. */
const STALL_MS = 60_000;
/** How long to wait for a part after the last byte of the request, in milliseconds. */
const SETTLE_MS = 1_000;

/**
 * Returns the first file of the request.
 *
 * @param wanted what to choose, for the message if there is no file
 * @throws `Problem` if there is none, or the request is not a form
 * @throws Problem `no-file`, `no-form`, `stalled`, `cut-off`
 */
export function fileOf(request: FastifyRequest, wanted: string, fileSize = MAX_FILE): Promise<Upload> {
  const none = () => new Problem('no-file', `No file came with the request. Choose ${wanted} and try again.`);
  const type = request.headers['content-type'] ?? '';
  if (!/^multipart\/form-data\s*;/i.test(type)) return Promise.reject(none());
  return new Promise((resolve, reject) => {
    const raw = request.raw;
    let found: BusboyFileStream | null = null;
    let form: InstanceType<typeof Busboy>;
    try {
      form = new Busboy({
        headers: { ...request.headers, 'content-type': type },
        limits: { fileSize, files: 1, fields: 4, fieldSize: 1_000, parts: 8, headerPairs: 20, headerSize: 8 * 1024 },
      });
    } catch {
      reject(new Problem('no-form', 'The file was not sent as a form. Load the page again, then try again.'));
      return;
    }
    let timer = setTimeout(stalled, STALL_MS);
    function stalled(): void {
      end(new Problem('stalled', 'The file stopped coming. Check the connection and add it again.'));
    }
    function end(error: Error | null): void {
      clearTimeout(timer);
      raw.unpipe(form);
      raw.off('data', alive).off('end', settle).off('close', gone);
      // The rest of the request is read and discarded, so that the client receives the answer.
      raw.resume();
      if (found) {
        if (error) found.destroy(error);
      } else reject(error ?? none());
    }
    function alive(): void {
      timer.refresh();
    }
    function settle(): void {
      clearTimeout(timer);
      timer = setTimeout(() => {
        if (!found) end(null);
      }, SETTLE_MS);
    }
    function gone(): void {
      if (!raw.complete) end(new Problem('cut-off', 'The file did not arrive completely. Add it again.'));
    }
    form.on('file', (_field, stream, name) => {
      found = stream;
      // The reader learns of an abort; nobody else has to.
      stream.on('error', () => undefined);
      stream.on('end', () => end(null));
      resolve({ name: fileNameOf(name), stream });
    });
    form.on('error', () => end(new Problem('no-form', 'The file did not arrive completely. Add it again.')));
    form.on('finish', () => end(null));
    raw.on('data', alive).on('end', settle).on('close', gone);
    raw.pipe(form);
  });
}
