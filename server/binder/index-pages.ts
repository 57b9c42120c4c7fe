/** The index of a binder for people: as a page that any browser opens without anything of ours, and as lines for a PDF. */
import type { BinderIndex } from './contents';

const escape = (text: string) => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
const href = (path: string) => escape(path.split('/').map(encodeURIComponent).join('/'));

/** Returns a page of links into the binder. It has no script and loads nothing from elsewhere. */
export function indexHtml(i: BinderIndex): string {
  const { deal } = i;
  const item = (path: string, name: string, more: string) =>
    `<li><a href="${href(path)}">${escape(name)}</a><br><small>${escape(more)}</small></li>`;
  const part = (title: string, items: string[]) => (items.length ? `<h2>${title}</h2><ol>${items.join('')}</ol>` : '');
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'">
<title>${escape(deal.address)}</title>
<style>body{font:17px/1.5 Georgia,serif;max-width:46em;margin:2em auto;padding:0 1em;color:#1E2A32;background:#FBF8F3}small{color:#5B6770;word-break:break-all}li{margin:0 0 .7em}a{color:#A8452C}</style></head>
<body><h1>${escape(deal.address)}</h1>
<p>${escape([deal.city, `${deal.kind}, ${deal.status}`].filter(Boolean).join('. '))}.</p>
<p>${deal.people.map((p) => escape(`${p.role}: ${p.name}`)).join('<br>')}</p>
${part(
  'Executed papers',
  i.executed.map((e) =>
    item(e.path, e.name, `${e.packet}, executed ${e.on}. Signed by ${e.signedBy.join(', ')}. SHA-256 ${e.sha256}`),
  ),
)}
${part(
  'Original files',
  i.originals.map((o) => item(o.path, o.name, `${o.type}, added ${o.added}. SHA-256 ${o.sha256}`)),
)}
${part(
  'Event records',
  i.chains.map((c) => item(c.path, c.packet, 'who did what when, with its hashes')),
)}
<p><small>Made ${escape(i.madeAt)}. The same as a file for programs: index.json.</small></p>
</body></html>
`;
}

/** Returns the same index as plain text. */
export function indexText(i: BinderIndex): string {
  const { deal } = i;
  const lines = [
    deal.address,
    [deal.city, `${deal.kind}, ${deal.status}`].filter(Boolean).join('. '),
    '',
    ...deal.people.map((p) => `${p.role}: ${p.name}`),
    '',
    'Executed papers',
    ...(i.executed.length ? [] : ['None yet.']),
    ...i.executed.flatMap((e) => [
      `${e.path}`,
      `    ${e.packet}, executed ${e.on}, signed by ${e.signedBy.join(', ')}`,
      `    SHA-256 ${e.sha256}`,
    ]),
    '',
    'Original files',
    ...i.originals.flatMap((o) => [
      `${o.path}`,
      `    ${o.name}, ${o.type}, added ${o.added}`,
      `    SHA-256 ${o.sha256}`,
    ]),
    '',
    'Event records',
    ...i.chains.map((c) => `${c.path}: ${c.packet}`),
    '',
    `Made ${i.madeAt}.`,
  ];
  return `${lines.join('\n')}\n`;
}
