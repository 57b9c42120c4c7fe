import { f1, score, together } from './reading-score';
import { kept } from './forms/kept';
import { written } from './forms/written';
const which = process.argv[2] === 'kept' ? kept : written;
const s = await score(which.map((f) => f.name));
for (const [k, t] of s.kinds) console.log(k, f1(t).toFixed(3), t);
console.log('all', f1(together(s)).toFixed(3), 'roles', s.roles);
if (process.argv[3] !== 'quiet') for (const f of s.faults) console.log(f);
