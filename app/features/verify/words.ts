/** What fills a gap in a sentence: a name, a number, or words already put together. */
type Part = string | number;

/** What the screens of “verify” say, in one place to read, edit and translate. */
export const TEXT = {
  // verify-screen.tsx
  thisServerMadeThatSeal: '; this server made that seal',
  noTimeRecorded: 'no time recorded',
  verifyASealedCopy: 'Verify a sealed copy',
  whatVerifyingDoes: 'Choose a sealed PDF. It is checked in the server’s memory and not stored. You need no account.',
  chooseASealedPdf: 'Choose a sealed PDF',
  dropItHere: 'Drop it here.',
  dropThePdfHere: 'Drop the PDF here, or',
  chooseAFile: 'Choose a file',
  isWholeNothingWasChanged: (fileName: Part) => `“${fileName}” is whole. Nothing was changed since its last seal.`,
  isNotWhole: (fileName: Part, why: Part) => `“${fileName}” is NOT whole: ${why}.`,
  withASelfMadeCertificate: ', with a self-made certificate',
  sealedBy: (signer: Part, part: Part, part2: Part) => `Sealed by ${signer}${part}${part2}.`,
  doNotRely: 'Do not rely on it. Ask the sender for the file again.',
  eachSealCoversTheFile: 'Each seal covers the file up to its own end, so each earlier state can be cut out of it.',
  unnamed: 'Unnamed',
  bytesTo: (at: Part, part: Part, value: Part) => `${at}${part}, bytes 1 to ${value}`,
  notWhole: (why: Part) => `Not whole: ${why}`,
  sha: (sha256: Part) => `SHA-256 ${sha256}`,
};
