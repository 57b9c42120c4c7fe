/** What clients send through their signing links. */
import * as yup from 'yup';
import { MAX_TEXT_LINES } from '@gatepath/core/marks';
import { SCRIPT_FACES, type Hand } from '@gatepath/core/routing';
import { id, language, line } from './fields';

const picture = yup
  .object({
    sha256: yup
      .string()
      .matches(/^[0-9a-f]{64}$/)
      .required(),
    width: yup.number().integer().min(1).max(4000).required(),
    height: yup.number().integer().min(1).max(4000).required(),
  })
  .noUnknown();

const drawing = yup
  .object({
    width: yup.number().min(10).max(5000).required(),
    height: yup.number().min(10).max(5000).required(),
    strokes: yup
      .array(
        yup
          .array(yup.number().min(-100).max(6000).required())
          .min(2)
          .max(8000)
          .required()
          .test('pairs', 'A stroke is a list of x, y pairs.', (v) => v.length % 2 === 0),
      )
      .min(1, 'Draw something first.')
      .max(200)
      .required(),
  })
  .noUnknown();

export const handBody = yup.lazy((value: unknown) => {
  const form = (value as { form?: string } | null)?.form;
  if (form === 'picture')
    return yup
      .object({
        form: yup.string().oneOf(['picture']).required(),
        signature: picture.required(),
        initials: picture.required(),
        initialsText: line(8).required(),
        keep: yup.boolean(),
        actId: id(),
      })
      .noUnknown();
  if (form === 'drawn')
    return yup
      .object({
        form: yup.string().oneOf(['drawn']).required(),
        signature: drawing.required(),
        initials: drawing.required(),
        initialsText: line(8).required(),
        keep: yup.boolean(),
        actId: id(),
      })
      .noUnknown();
  return yup
    .object({
      form: yup.string().oneOf(['typed'], 'Choose a typed or a drawn signature.').required(),
      face: yup.string().oneOf(SCRIPT_FACES).required(),
      signature: line(80).required('Write your name.'),
      initials: line(8).required('Write your initials.'),
      keep: yup.boolean(),
      actId: id(),
    })
    .noUnknown();
});
/** A hand, and whether to keep it for the person's other packets of the firm. */
export type HandBody = Hand & { keep?: boolean; actId?: string };

/** Every act carries an id made on the client: sent twice, it counts once. */
export const agreementBody = yup.object({ agreement: line(20).required(), actId: id() });
export const fillBody = yup.object({
  actId: id().required(),
  /** What was written; for ticks and choices any word, and nothing to take it back. */
  text: yup.string().max(MAX_TEXT_LINES),
});
export type FillBody = yup.InferType<typeof fillBody>;
export const finishBody = yup.object({ actId: id().required() });
export const declineBody = yup.object({
  /** The core asks for it in the client's own language. */
  reason: line(600).default(''),
});
export type DeclineBody = yup.InferType<typeof declineBody>;
export const questionBody = yup.object({ actId: id().required(), text: line(2000).default('') });
export type QuestionBody = yup.InferType<typeof questionBody>;
export const handOverBody = yup.object({
  name: line(120).defined().default(''),
  email: line(254).defined().default(''),
  phone: line(40).nullable().default(null),
  reason: line(600).defined().default(''),
});
export type HandOverBody = yup.InferType<typeof handOverBody>;
export const codeBody = yup.object({ code: line(40).default('') });
export const languageBody = yup.object({ language: language().required() });
