/** Parts that forms of other ways of printing are put together from. */
import { html, link, odt, rule, us } from '../blank';

/** Returns underlined spaces, as a word processor's user makes a blank. */
export const spaces = (n: number, kind: string, role?: string, o?: number) =>
  `<u>${link('\u00a0'.repeat(n), kind, role, o)}</u>`;
/** Returns a frame around nothing, for one hand. */
export const frame = (w: number, kind: string, role?: string, o?: number) =>
  `<a class="frame" style="width:${w}pt" href="https://label.test/${kind}/${role ?? '-'}/${o ?? '-'}">&nbsp;</a>`;
/** Returns a line with its caption underneath. */
export const under = (w: number, caption: string, kind: string, role?: string, o?: number) =>
  `<span class="u">${rule(w, kind, role, o)}<i>${caption}</i></span>`;
/** Returns a line with its caption above. */
export const over = (w: number, caption: string, kind: string, role?: string, o?: number) =>
  `<span class="u"><i>${caption}</i>${rule(w, kind, role, o)}</span>`;
/** Returns lines side by side. */
export const row = (...parts: string[]) => `<div class="r">${parts.join('')}</div>`;
/** Returns pages of a paper, each with the same foot. */
export const pages = (bodies: string[], foot: (n: number) => string) =>
  bodies.map((b, i) => `<section class="pg">${b}<footer class="ft">${foot(i + 1)}</footer></section>`).join('');

const CSS = `.frame{display:inline-block;border:1px solid #222;height:18pt;vertical-align:middle}
.u{display:inline-block;margin:12pt 20pt 0 0}.u i{display:block;font-style:normal;font-size:8.5pt}.u .rule{height:16pt}
.r{margin:6pt 0}.pg{height:9.4in;position:relative;break-after:page}.pg:last-child{break-after:auto}
.ft{position:absolute;left:0;right:0;bottom:0;font-size:9pt}.sans{font-family:"DejaVu Sans",sans-serif}
.two{display:flex}.two>div{width:50%}ol,ul{margin:4pt 0}li{margin:4pt 0}
@page{size:letter;margin:0.72in 0.7in}`;

export const sheet = (body: string, css = '') => html(body, CSS + css);
export { link, odt, rule, us };
