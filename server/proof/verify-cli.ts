/**
 * npm run -s verify -- FILE...: says whether sealed copies and chains are whole, and, when both
 * are given, whether they tell the same. Exit status 0, 1 when something is wrong, 2 for bad use.
 */
import { readFile } from 'node:fs/promises';
import { firstStepBack } from '@gatepath/core/proof';
import { disagreements, verifyChain, type ChainVerification } from './chain-file';
import { verifySealed, type SealVerification } from '../pdf-sealing/verify';
import { lastOf } from '@gatepath/core/sure';

const files = process.argv.slice(2);
if (!files.length) {
  console.error('Say which file: npm run -s verify -- FILE.pdf, FILE.json, or both');
  process.exit(2);
}
let wrong = false;
const chains: Extract<ChainVerification, { whole: true }>[] = [];
const copies: { file: string; check: SealVerification }[] = [];
for (const file of files) {
  const bytes = await readFile(file).catch(() => null);
  if (!bytes) {
    console.error(`${file} cannot be read. Check the name.`);
    process.exit(2);
  }
  if (/\.json$/i.test(file)) chain(file, verifyChain(bytes.toString('utf8')));
  else sealed(file, verifySealed(bytes));
}
for (const { file, check } of copies)
  for (const c of chains) {
    const other = disagreements(check, c);
    wrong ||= other.length > 0;
    console.log(
      other.length
        ? `${file}: does NOT agree with the chain: ${other.join('; ')}.`
        : `${file}: agrees with the chain, seal by seal.`,
    );
  }
process.exit(wrong ? 1 : 0);

function chain(file: string, check: ChainVerification): void {
  if (!check.whole) {
    wrong = true;
    console.log(`${file}: NOT whole: ${check.why}.`);
    return;
  }
  chains.push(check);
  const { state } = check;
  console.log(`${file}: whole. ${check.events.length} events of “${state.plan.packetName}”, ${state.status}.`);
  const back = firstStepBack(check.events);
  if (back !== null)
    console.log(`remark     the clock was set back before event ${back}; times from there on are not to be relied on`);
  console.log(`sealed by  ${check.signer}`);
  console.log(`last hash  ${lastOf(check.events).hash}`);
}

function sealed(file: string, check: SealVerification): void {
  wrong ||= !check.whole;
  console.log(
    check.whole ? `${file}: whole. Nothing was changed since it was sealed.` : `${file}: NOT whole: ${check.why}.`,
  );
  for (const r of check.revisions) {
    const state = r.whole ? '' : `  NOT whole: ${r.why}`;
    console.log(`seal ${r.n}  ${r.at ?? 'no time'}  ${r.name}  ${r.reason}  (bytes 1 to ${r.end})${state}`);
  }
  const last = check.revisions[check.revisions.length - 1];
  if (last?.signer) {
    console.log(
      `sealed by  ${last.signer}${last.issuer === last.signer ? ' (own certificate)' : `, certified by ${last.issuer}`}`,
    );
    console.log(`certificate SHA-256  ${last.fingerprint}`);
  }
  if (check.whole) copies.push({ file, check });
}
