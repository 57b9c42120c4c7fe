import { readingAccuracy } from './reading';
import { score } from './reading-score';
import { kept } from './forms/kept';
import { written } from './forms/written';
console.log(await readingAccuracy());
console.log((await score([...kept, ...written].map((f) => f.name))).faults);
process.exit(0);
