/** npm run bench: speed as ratios against a named peer, measured in the same run. --json for one object. */
import { rows as acts } from './acts';
import { rows as checking } from './checking';
import { rows as deals } from './deals';
import { changedAccuracy } from './changed';
import { scansAccuracy } from './scans';
import { row as drawing } from './drawing';
import { rows as large } from './large';
import { intakeAccuracy } from './intake';
import { memoryAccuracy, rows as memory } from './memory';
import { row as reading } from './reading';
import type { Accuracy } from './reading';
import { report } from './reader/report';
import { rows as replaying } from './replay';
import { rows as sealing } from './sealing';
import { rows as lists } from './lists';
import { rows as sealingLarge } from './sealing-large';
import { row as lanes } from './lanes';
import { rows as notices } from './notices';
import { rows as wire } from './wire';
import type { Row } from './measure';

/** Returns a time, or a size, as it is read. */
function amount(r: Row, n: number): string {
  return r.unit === 'bytes' ? `${(n / 1024).toFixed(1)} kB` : `${n.toFixed(1)} ms`;
}

const json = process.argv.includes('--json');
/** Names of what is to be measured; everything when none is given. */
const only = process.argv.slice(2).filter((a) => !a.startsWith('-'));
const say = (text: string) => (json ? undefined : console.log(text));
const rows: Row[] = [];
for (const [name, run] of [
  ['drawing', async () => [await drawing()]],
  ['sealing', async () => [...(await sealing()), ...(await sealingLarge())]],
  ['lanes', async () => [await lanes()]],
  ['replay', replaying],
  ['lists', lists],
  ['deals', deals],
  ['notices', notices],
  ['acts', acts],
  ['wire', wire],
  ['reading', async () => [await reading()]],
  ['gate check', checking],
  ['a packet of 1,000 pages', large],
  ['memory', memory],
] as const) {
  if (only.length && !only.includes(name)) continue;
  say(`Measuring ${name}…`);
  const measured = await run();
  rows.push(...measured);
  // At once: whoever ends the run early has what was measured by then.
  for (const r of measured)
    say(`  ${r.what}: ${amount(r, r.ours)}, ${r.peer} ${amount(r, r.theirs)}, ratio ${r.ratio.toFixed(2)}`);
}
const onReading = !only.length || only.includes('reading');
if (onReading && !json) await report(say, true);
const onMemory = only.length && !only.includes('memory') ? null : await memoryAccuracy(say);
const onIntake = only.length && !only.includes('intake') ? null : await intakeAccuracy(say);
const onScans = only.length && !only.includes('scans') ? null : await scansAccuracy();
const onChanged = only.length && !only.includes('changed') ? null : await changedAccuracy();
if (json) console.log(JSON.stringify({ rows, ...onScans, changed: onChanged, memory: onMemory, intake: onIntake }));
else {
  const cells = rows.map((r) => [
    r.what,
    amount(r, r.ours),
    r.peer,
    amount(r, r.theirs),
    r.ratio.toFixed(2),
    r.memory === undefined ? '' : `${r.memory} MB`,
  ]);
  const heads = ['what', 'ours', 'peer', 'peer’s', 'ratio', 'memory'];
  const widths = heads.map((h, i) => Math.max(h.length, ...cells.map((c) => c[i]!.length)));
  const line = (c: string[]) => c.map((x, i) => x.padEnd(widths[i]!)).join('  ');
  console.log(`\n${line(heads)}\n${widths.map((w) => '-'.repeat(w)).join('  ')}`);
  for (const c of cells) console.log(line(c));
  const scores = (a: Accuracy) =>
    `${a.places} places; signatures ${a.signatures.toFixed(3)}, initials ${a.initials.toFixed(3)}, all kinds ${a.all.toFixed(3)}, roles right ${a.roles.toFixed(3)}, of what is accepted unseen ${a.sure.toFixed(3)} right`;
  for (const a of onScans?.scans ?? [])
    console.log(`  ${a.set}: ${a.forms} forms, ${a.pages} pages, ${scores(a)}; ${a.secondsAPage.toFixed(1)} s a page`);
  for (const a of onScans?.filled ?? [])
    console.log(
      `  filled or empty on scans, ${a.set}: empty places told no ${a.empty.no}, doubtful ${a.empty.doubtful}, yes ${a.empty.yes}, not met ${a.empty['not met']}; filled ones told yes ${a.full.yes}, doubtful ${a.full.doubtful}, no ${a.full.no}, not met ${a.full['not met']}`,
    );
  if (onChanged)
    console.log(
      `  a form against its own scan: ${onChanged.forms} forms, ${onChanged.pages} pages, ${onChanged.words} words; told though nothing changed: ${onChanged.falseWords} in words, ${onChanged.falseInk} in ink; of ${onChanged.changed} changed words ${onChanged.told} told`,
    );
  console.log('\nratio: our time over the peer’s, medians of the same run; below 1 is faster than the peer');
}
process.exit(0);
