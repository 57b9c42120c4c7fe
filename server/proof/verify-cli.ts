/** npm run -s verify -- FILE.pdf: says whether a sealed copy is whole; exit status 0 or 1. */
import { readFile } from 'node:fs/promises';
import { verifySealed } from './verify';

const file = process.argv[2];
if (!file) {
  console.error('Say which file: npm run -s verify -- FILE.pdf');
  process.exit(2);
}
const bytes = await readFile(file).catch(() => null);
if (!bytes) {
  console.error(`${file} cannot be read. Check the name.`);
  process.exit(2);
}
const check = verifySealed(bytes);
if (check.whole) {
  console.log(`${file}: whole. Nothing was changed since it was sealed.`);
  console.log(
    `sealed by  ${check.signer}${check.issuer === check.signer ? ' (own certificate)' : `, certified by ${check.issuer}`}`,
  );
  console.log(`sealed at  ${check.at}`);
  console.log(`certificate SHA-256  ${check.fingerprint}`);
} else {
  console.log(`${file}: NOT whole: ${check.why}.`);
}
process.exit(check.whole ? 0 : 1);
