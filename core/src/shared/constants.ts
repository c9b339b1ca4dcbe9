/** Standard acceleration of free fall, m/s². @source 3rd General Conference on Weights and Measures, 1901 */
export const STANDARD_GRAVITY = 9.80665;

/** A scan file larger than this is refused; two and a half million triangles in binary STL. */
export const MOST_SCAN_BYTES = 128 * 1024 * 1024;
