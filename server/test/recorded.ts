/**
 * Worker processes that recognize a scanned page once in their life: what was recognized is kept beside the tests, by the
 * fingerprint of the file, and read from there the next time. `server/scan/recognise.test.ts` recognizes a page for real and holds the record to it.
 */
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { newSecret, sha256 } from '../ids';
import { WorkPool } from '../work/pool';
import type { TaskName, Tasks } from '../work/tasks';

/** Of longer papers pages behind these are not kept: a test that brings in a thousand must not leave a thousand files. */
const MOST_PAGES = 12;
const KEPT = path.join(process.cwd(), 'server', 'test', 'fixtures', 'recognized');

export class RecordedWork extends WorkPool {
  override async run<K extends TaskName>(
    task: K,
    input: Parameters<Tasks[K]>[0],
    owner = '',
  ): Promise<Awaited<ReturnType<Tasks[K]>>> {
    if (task !== 'recognise') return super.run(task, input, owner);
    const { file, page, language } = input as Parameters<Tasks['recognise']>[0];
    const key = sha256(`${sha256(readFileSync(file))} ${page} ${language}`).slice(0, 32);
    const kept = path.join(KEPT, `${key}.json.gz`);
    if (existsSync(kept)) return JSON.parse(gunzipSync(readFileSync(kept)).toString()) as Awaited<ReturnType<Tasks[K]>>;
    const found = await super.run(task, input, owner);
    if (page > MOST_PAGES) return found;
    mkdirSync(KEPT, { recursive: true });
    const part = `${kept}.${newSecret()}`;
    writeFileSync(part, gzipSync(JSON.stringify(found)));
    renameSync(part, kept);
    return found;
  }
}
