/** A label at a height, and where it is written so that no two lie on each other. */
export type Label<T> = { of: T; at: number };

/**
 * Moves labels apart, as little as there can be, within a column.
 * @param labels With the height that each belongs to.
 * @param apart The least distance of two.
 */
export function spread<T>(
  labels: readonly Label<T>[],
  apart: number,
  top: number,
  bottom: number,
): Label<T>[] {
  const sorted = labels.toSorted((a, b) => a.at - b.at).map((l) => ({ ...l }));
  for (const [i, label] of sorted.entries())
    label.at = Math.max(label.at, i ? sorted[i - 1]!.at + apart : top);
  let most = bottom;
  for (const label of sorted.toReversed()) {
    label.at = Math.min(label.at, most);
    most = label.at - apart;
  }
  return sorted;
}
