/** Answers come in any order, and only what was asked last counts: each asking tells whether it is still the newest. */
export function newestOnly() {
  let last = 0
  return () => {
    const mine = ++last
    return () => mine === last
  }
}
