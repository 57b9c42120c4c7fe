/**
 * Words about people and places, and cleaning text from outside: names, sides of a deal, email addresses, members'
 * patterns. Knows nothing of packets; every layer may use it.
 */
export { count, doneWords, firstName, fold, initialsOf, listWords, numberWord } from './names';
export { patternOf } from './pattern';
export { type Side, SIDE_WORDS, sideLabel, SIDES } from './sides';
export { isEmail } from './email';
export { clip, fileNameOf, isClean, oneLine } from './hygiene';
export { cutEnd, lowerFirst, upperFirst } from './ends';
export { whoOf } from './who';
