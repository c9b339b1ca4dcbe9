/** A fault in what people recorded or typed. It is a value, never thrown, so that one bad record does not hide the rest. */
export interface Issue {
  /** short stable word for the kind of fault, e.g. `mass-without-unit` */
  readonly code: string;
  /** the record at fault, or null when there is none yet */
  readonly recordId: string | null;
  /** the field at fault as it stands in the contract, or null for the record as a whole */
  readonly field: string | null;
  /** what is wrong, and what to do, in words for people */
  readonly message: string;
}

/** A fault in what was recorded or typed, as a value, so that one does not hide the rest. */
export const issue = (code: string, message: string, field: string | null = null, recordId: string | null = null): Issue => ({
  code,
  recordId,
  field,
  message,
});
