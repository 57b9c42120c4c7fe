/** Brings the table of routes in docs/api.md up to date: `npm run api-table`. */
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { allRoutes } from './routes';

const file = path.resolve('docs/api.md');
const HEAD = '## Who may call what';
const [before = '', after = ''] = readFileSync(file, 'utf8').split(HEAD);
const rest = after.split('\n').filter((l) => !l.startsWith('|'));
const table = [
  '| route | | who | what |',
  '| --- | --- | --- | --- |',
  ...allRoutes.map(([name, r]) => `| \`${name}\` | ${r.method} \`${r.path}\` | ${r.who} | ${r.summary} |`),
];
writeFileSync(file, `${before}${HEAD}${rest.join('\n').trimEnd()}\n\n${table.join('\n')}\n`);
