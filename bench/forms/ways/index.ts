/** Forms with ways of printing of their own that the rules learnt from, set after set. */
import type { FormSource } from '../types';
import { eighth } from './eighth';
import { fifth } from './fifth';
import { fourth } from './fourth';
import { learnt } from './learnt';
import { second } from './second';
import { seventh } from './seventh';
import { sixth } from './sixth';
import { third } from './third';

export const otherWays: FormSource[] = [
  ...learnt,
  ...second,
  ...third,
  ...fourth,
  ...fifth,
  ...sixth,
  ...seventh,
  ...eighth,
];
