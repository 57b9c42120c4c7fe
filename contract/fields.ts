/** Small schemas that bodies are put together from. */
import * as yup from 'yup';
import { isEmail } from '@gatepath/core/text';

export const id = () =>
  yup
    .string()
    .trim()
    .min(1)
    .max(200)
    .matches(/^[\w.:-]+$/, 'is not an id');
export const line = (max: number) => yup.string().trim().max(max);
export const email = () =>
  line(254).test('email', 'This is not an email address, like name@example.com.', (v) => !v || isEmail(v));
export const day = () => yup.string().matches(/^\d{4}-\d{2}-\d{2}$/, 'is not a day, like 2026-11-23');
export const points = () => yup.number().min(-20000).max(20000);

export const rect = yup
  .object({
    x: points().required(),
    y: points().required(),
    w: points().min(1).required(),
    h: points().min(1).required(),
  })
  .noUnknown();

/** A language by its tag (BCP 47), as its file of words is named. */
export const language = () => yup.string().matches(/^[a-z]{2,3}(-[A-Za-z]{2,8})?$/, 'is not a language, like en or es');

export const gate = yup
  .object({
    id: id().required(),
    partyIds: yup.array(id().required()).max(60).required(),
    need: yup.string().oneOf(['any']),
  })
  .noUnknown();
