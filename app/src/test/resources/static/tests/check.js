// What the tests of scripts say a value must be.
const text = (value) => JSON.stringify(value, (key, v) => (v instanceof Set ? [...v] : v === undefined ? null : v));

export function same(is, wanted, what = "") {
  if (text(is) !== text(wanted)) throw new Error(`${what} is ${text(is)}, not ${text(wanted)}`);
}

export function near(is, wanted, within = 1e-9, what = "") {
  if (!(Math.abs(is - wanted) <= within)) throw new Error(`${what} is ${is}, not ${wanted}`);
}

export async function fails(work, words) {
  try {
    await work();
  } catch (error) {
    if (!error.message.includes(words)) throw new Error(`failed with “${error.message}”, not with “${words}”`);
    return error;
  }
  throw new Error(`did not fail with “${words}”`);
}

/** Numbers that are the same in every run. */
export function numbers(seed) {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}
