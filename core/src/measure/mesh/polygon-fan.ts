/** Triangles of a face with any number of corners, as a fan from its first. Faces of scans are triangles or flat quadrangles. */
export const addFan = (corners: readonly number[], into: number[]): void => {
  for (let i = 2; i < corners.length; i++) into.push(corners[0]!, corners[i - 1]!, corners[i]!);
};
