/** The address of a picture of a study, whole or small. */
export const fileUrl = (studyId: string, sha256: string, small: boolean): string =>
  `/api/studies/${studyId}/files/${sha256}${small ? '/thumbnail' : ''}`;
