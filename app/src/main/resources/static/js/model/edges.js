// Edges of two versions of a model held against each other. Knows no picture.

/** An edge by its two ends, whichever comes first, to a hundredth of a millimetre. */
const key = (ends, i) => [0, 3].map((k) => [0, 1, 2].map((c) => Math.round(ends[i + k + c] * 100)).join(" ")).sort().join("|");

const keys = (arrays) => new Set(arrays.flatMap((ends) => Array.from({ length: ends.length / 6 }, (_, i) => key(ends, i * 6))));

const chosen = (arrays, wanted) => {
  const out = [];
  arrays.forEach((ends) => { for (let i = 0; i < ends.length; i += 6) if (wanted(key(ends, i))) out.push(...ends.slice(i, i + 6)); });
  return out;
};

/**
 * @param old edges, arrays of six coordinates each
 * @returns coordinates of the edges that both have, that only the new one has, that only the old one has; O(edges)
 */
export function held(old, now) {
  const [was, is] = [keys(old), keys(now)];
  return {
    both: chosen(now, (k) => was.has(k)),
    added: chosen(now, (k) => !was.has(k)),
    gone: chosen(old, (k) => !is.has(k)),
  };
}
