/** File types that can be added as papers, for the file picker. */
export const PAPER_FILES =
  'application/pdf,.pdf,.docx,application/vnd.openxmlformats-officedocument.wordprocessingml.document,.xlsx,application/vnd.openxmlformats-officedocument.spreadsheetml.sheet,text/plain,.txt,image/png,image/jpeg,image/webp';
