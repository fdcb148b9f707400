/** Index of the place next to one; the places rise. */
export function nearest(places: ArrayLike<number>, x: number): number {
  let low = 0;
  let high = places.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (places[middle] <= x) {
      low = middle;
    } else {
      high = middle;
    }
  }
  return x - places[low] <= places[high] - x ? low : high;
}
