/** The worker pool for PDF work: nothing of it runs on the request thread. */
import { createRequire } from 'node:module';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { Piscina } from 'piscina';
import { SCRIPT_FACES } from '@gatepath/core/routing';
import type { Tasks } from './worker';

const require = createRequire(import.meta.url);
const HERE = path.dirname(fileURLToPath(import.meta.url));

export class PdfPool {
  private readonly pool: Piscina;

  constructor(private readonly threads: number = Math.max(2, Math.min(4, os.cpus().length))) {
    this.pool = new Piscina({
      filename: pathToFileURL(path.join(HERE, 'worker.ts')).href,
      // Workers read TypeScript themselves, whatever started the main thread.
      execArgv: ['--import', pathToFileURL(require.resolve('tsx')).href],
      minThreads: 1,
      maxThreads: threads,
      // Starting a worker takes seconds; somebody waiting for a page should not.
      idleTimeout: 30 * 60_000,
    });
  }

  /** Runs a task in a worker. */
  run<K extends keyof Tasks>(task: K, input: Parameters<Tasks[K]>[0]): Promise<Awaited<ReturnType<Tasks[K]>>> {
    return this.pool.run({ task, input }) as Promise<Awaited<ReturnType<Tasks[K]>>>;
  }

  /** Starts every worker and loads its fonts, so that the first client does not wait for that. */
  async warm(): Promise<void> {
    const faces = [...SCRIPT_FACES, 'atkinson'] as const;
    await Promise.all(
      Array.from({ length: this.threads }, async () => {
        for (const face of faces) await this.run('missing', { text: 'Żofia Ж Σ', face });
      }),
    );
  }

  close(): Promise<void> {
    return this.pool.destroy();
  }
}
