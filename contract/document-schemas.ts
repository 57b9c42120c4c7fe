/** Requests about documents of a deal, as Yup schemas. */
import * as yup from 'yup';
import { id, line, object } from './fields';

/** Query of adding a document: the corners of a photographed sheet. */
export const addDocumentQuery = object({
  /** Where the sheet is in a photograph: x and y of its four corners, clockwise from the top left, as shares of the picture. */
  corners: yup
    .string()
    .max(120)
    .matches(/^(?:-?\d(?:\.\d{1,6})?,){7}-?\d(?:\.\d{1,6})?$/, 'Give the corners as eight numbers.'),
});

/** Body of making a document from pages of others. */
export const composeBody = object({
  name: line(120).required('Give the document a name.'),
  parts: yup
    .array(
      object({
        documentId: id().required(),
        page: yup.number().integer().min(1).required(),
        turn: yup.number().oneOf([0, 90, 180, 270]).default(0),
      }).required(),
    )
    .min(1, 'Keep at least one page.')
    .max(1000, 'A document takes at most 1,000 pages.')
    .required(),
  /** People for whom the paper has no line: further pages behind it take their signatures. */
  further: yup
    .array(
      object({
        /** As the packet calls them: "Seller 10". */
        called: line(60).required(),
        name: line(120).required(),
      }).required(),
    )
    .max(60)
    .default([]),
  /** Documents whose place the new one takes. */
  replaces: yup.array(id().required()).max(60).default([]),
});
/** The type of `composeBody`. */
export type ComposeBody = yup.InferType<typeof composeBody>;
